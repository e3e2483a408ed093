import { vi } from 'vitest'

/** What tests of drawings draw with: paths that know the points they run through, and pens that note what they do. */
export type Point = [number, number]

class Turned {
  constructor(private readonly to: (point: Point) => Point = (point) => point) {}
  translate(dx: number, dy: number) {
    return new Turned(([x, y]) => this.to([x + dx, y + dy]))
  }
  rotate(degrees: number) {
    const [sin, cos] = [Math.sin((degrees * Math.PI) / 180), Math.cos((degrees * Math.PI) / 180)]
    return new Turned(([x, y]) => this.to([x * cos - y * sin, x * sin + y * cos]))
  }
  of(point: Point) {
    return this.to(point)
  }
}

const STEPS = Array.from({ length: 21 }, (_, n) => n / 20)

export class Traced {
  points: Point[] = []
  /** How many pieces it is made of, each closed by itself. */
  parts = 0
  private at: Point = [0, 0]
  addPath(path: Traced, by: Turned) {
    this.points.push(...path.points.map((point) => by.of(point)))
    this.parts += 1
  }
  moveTo(x: number, y: number) {
    this.at = [x, y]
  }
  private to(end: Point, along: (t: number) => Point) {
    this.points.push(...STEPS.map(along))
    this.at = end
  }
  bezierCurveTo(x1: number, y1: number, x2: number, y2: number, x: number, y: number) {
    const [x0, y0] = this.at
    const on = (t: number, a: number, b: number, c: number, d: number) =>
      (1 - t) ** 3 * a + 3 * (1 - t) ** 2 * t * b + 3 * (1 - t) * t * t * c + t ** 3 * d
    this.to([x, y], (t) => [on(t, x0, x1, x2, x), on(t, y0, y1, y2, y)])
  }
  quadraticCurveTo(x1: number, y1: number, x: number, y: number) {
    const [x0, y0] = this.at
    const on = (t: number, a: number, b: number, c: number) => (1 - t) ** 2 * a + 2 * (1 - t) * t * b + t * t * c
    this.to([x, y], (t) => [on(t, x0, x1, x), on(t, y0, y1, y)])
  }
  ellipse(x: number, y: number, a: number, b: number) {
    this.points.push(...STEPS.map((t): Point => [x + a * Math.cos(2 * Math.PI * t), y + b * Math.sin(2 * Math.PI * t)]))
  }
  roundRect(x: number, y: number, w: number, h: number) {
    this.points.push([x, y], [x + w, y], [x + w, y + h], [x, y + h])
  }
  closePath() {}
  get box() {
    const xs = this.points.map(([x]) => x)
    const ys = this.points.map(([, y]) => y)
    return { left: Math.min(...xs), right: Math.max(...xs), top: Math.min(...ys), bottom: Math.max(...ys) }
  }
}

/** Draw with these from here on, until the test ends. */
export function traced() {
  vi.stubGlobal('Path2D', Traced)
  vi.stubGlobal('DOMMatrix', Turned)
}

/** A pen that keeps every call and setting, in order. */
export function pen() {
  const did: { name: string; given: unknown[]; fill: string }[] = []
  const state: Record<string, unknown> = { fillStyle: '' }
  const context = new Proxy(state, {
    get: (_, name: string) =>
      name in state
        ? state[name]
        : (...given: unknown[]) => {
            did.push({ name, given, fill: String(state.fillStyle) })
            return { addColorStop: () => {} }
          },
    set: (_, name: string, value) => {
      state[name] = value
      return true
    },
  })
  return { did, context: context as unknown as CanvasRenderingContext2D }
}
