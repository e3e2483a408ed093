import { seeded } from './grains'

/** A piece's own shape as it lies on a plate, seen from above. Plain data in, one path out. */
export interface Shaped {
  shape: string
  length_cm: number
  width_cm: number
  thickness_cm: number
  pieces: number
}

/** Most that are drawn of equal pieces. */
const MOST = 12

/** The outline of all pieces around the middle of a plate, none farther from it than `reach`. */
export function outlineOf(of: Shaped, middle: number, reach: number): Path2D {
  const whole = new Path2D()
  const count = Math.max(1, Math.min(MOST, of.pieces))
  const small = of.shape === 'cubes' || of.shape === 'strips'
  const columns = small && of.shape === 'strips' ? count : Math.ceil(Math.sqrt(count))
  const rows = Math.ceil(count / columns)
  const [wide, high] = [(2 * reach * 0.86) / columns, (2 * reach * 0.78) / rows]
  const random = seeded(`${of.shape} ${count}`)
  for (let n = 0; n < count; n++) {
    const inRow = Math.min(columns, count - Math.floor(n / columns) * columns)
    const x = middle + ((n % columns) - (inRow - 1) / 2) * wide
    const y = middle + (Math.floor(n / columns) - (rows - 1) / 2) * high
    const turn = count > 1 ? (random() - 0.5) * (small ? 0.5 : 0.16) : -0.12
    const one = single(of, count > 1 ? (wide / 2) * 0.88 : reach * 0.98, count > 1 ? (high / 2) * 0.9 : reach * 0.98)
    whole.addPath(one, new DOMMatrix().translate(x, y).rotate((turn * 180) / Math.PI))
  }
  return whole
}

/** One piece around the origin, within half the width and half the height given. */
function single(of: Shaped, halfWide: number, halfHigh: number): Path2D {
  const ratio = Math.min(1, Math.max(0.24, of.width_cm / of.length_cm))
  let a = halfWide
  let b = halfWide * ratio
  if (b > halfHigh) [a, b] = [halfHigh / ratio, halfHigh]
  const path = new Path2D()
  if (of.shape === 'bird') bird(path, a * 0.92, Math.min(halfHigh, a * 0.82))
  else if (of.shape === 'rack') rack(path, a, b * 0.8)
  else if (of.shape === 'cubes') path.roundRect(-b * 0.9, -b * 0.9, b * 1.8, b * 1.8, 3)
  else if (of.shape === 'strips') strip(path, Math.min(halfWide, halfHigh * 0.3), halfHigh)
  else if (of.shape === 'cylinder') path.roundRect(-a, -b, a * 2, b * 2, b * 0.7)
  else if (of.shape === 'ellipsoid') path.ellipse(0, 0, a, b, 0, 0, 2 * Math.PI)
  else if (of.thickness_cm / of.width_cm > 0.36) path.roundRect(-a, -b, a * 2, b * 2, Math.min(a, b) * 0.28)
  else if (ratio < 0.5) fillet(path, a, b)
  else steak(path, a, b)
  return path
}

const strip = (path: Path2D, wide: number, long: number) => path.roundRect(-wide, -long, wide * 2, long * 2, wide * 0.6)

/** A fillet: thick at its head, drawn out to its tail. */
function fillet(path: Path2D, a: number, b: number) {
  path.moveTo(-a, -b * 0.35)
  path.bezierCurveTo(-a * 0.7, -b * 1.15, -a * 0.1, -b * 1.1, a * 0.55, -b * 0.5)
  path.quadraticCurveTo(a * 0.9, -b * 0.22, a, b * 0.05)
  path.quadraticCurveTo(a * 0.8, b * 0.3, a * 0.5, b * 0.5)
  path.bezierCurveTo(-a * 0.1, b * 1.1, -a * 0.75, b * 1.05, -a, b * 0.45)
  path.closePath()
}

/** A steak: a round of muscle with one drawn-in side. */
function steak(path: Path2D, a: number, b: number) {
  path.moveTo(-a, 0)
  path.bezierCurveTo(-a, -b * 1.05, -a * 0.1, -b * 1.1, a * 0.35, -b * 0.82)
  path.bezierCurveTo(a * 0.85, -b * 0.6, a * 1.05, -b * 0.1, a * 0.95, b * 0.3)
  path.bezierCurveTo(a * 0.8, b * 0.95, a * 0.3, b * 0.62, -a * 0.05, b * 0.72)
  path.bezierCurveTo(-a * 0.6, b * 1.05, -a, b * 0.75, -a, 0)
  path.closePath()
}

/** A rack: a slab with the ends of its bones along one side. */
function rack(path: Path2D, a: number, b: number) {
  path.roundRect(-a, -b, a * 2, b * 1.75, 8)
  const bones = 8
  const step = (a * 1.84) / bones
  for (let n = 0; n < bones; n++) path.roundRect(-a * 0.92 + step * (n + 0.28), b * 0.7, step * 0.44, b * 0.42, 3)
}

/** A bird on its back: its breast, its legs drawn together, its wings laid back. */
function bird(path: Path2D, a: number, b: number) {
  path.ellipse(-a * 0.12, 0, a * 0.72, b * 0.74, 0, 0, 2 * Math.PI)
  for (const side of [-1, 1]) {
    const leg = new Path2D()
    leg.ellipse(0, 0, a * 0.36, b * 0.24, 0, 0, 2 * Math.PI)
    leg.roundRect(a * 0.24, -b * 0.07, a * 0.3, b * 0.14, b * 0.06)
    path.addPath(leg, new DOMMatrix().translate(a * 0.42, side * b * 0.4).rotate(-side * 16))
    const wing = new Path2D()
    wing.ellipse(0, 0, a * 0.3, b * 0.15, 0, 0, 2 * Math.PI)
    path.addPath(wing, new DOMMatrix().translate(-a * 0.4, side * b * 0.72).rotate(side * 24))
  }
}
