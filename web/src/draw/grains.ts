import { sure } from '../kit/sure'

/** Draws ingredients as their own grains, in their own colour, at relative size. Plain data in, pixels out. */

export interface Grains {
  key: string
  colour: string
  grain_mm: number
  family: string
}
/** A stretch of a strip by mass; those of one line, as of a blend inside, are `joined`. */
export interface Band {
  of: Grains
  name: string
  share: number
  joined?: boolean
}

const PX_PER_MM = 4.2
const MOST = 2600

/** A small seeded generator (mulberry32), so that the same blend always looks the same. */
export function seeded(text: string): () => number {
  let state = 2166136261
  for (const char of text) state = Math.imul(state ^ char.charCodeAt(0), 16777619)
  return () => {
    state = (state + 0x6d2b79f5) | 0
    let t = Math.imul(state ^ (state >>> 15), 1 | state)
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
}

function shade(colour: string, by: number): string {
  const channel = (at: number) => {
    const value = parseInt(colour.slice(at, at + 2), 16)
    return Math.round(by > 0 ? value + (255 - value) * by : value * (1 + by))
  }
  return `rgb(${channel(1)} ${channel(3)} ${channel(5)})`
}

/** One irregular grain; leaves and needles are long, flakes are flat, seeds and crystals are chunky. */
function grain(ctx: CanvasRenderingContext2D, x: number, y: number, size: number, long: number, random: () => number) {
  const corners = 5 + Math.floor(random() * 3)
  const turn = random() * Math.PI
  ctx.beginPath()
  for (let at = 0; at < corners; at++) {
    const angle = (at / corners) * 2 * Math.PI
    const reach = (size / 2) * (0.65 + random() * 0.5)
    const px = Math.cos(angle) * reach * long
    const py = Math.sin(angle) * reach
    const gx = x + px * Math.cos(turn) - py * Math.sin(turn)
    const gy = y + px * Math.sin(turn) + py * Math.cos(turn)
    if (at) ctx.lineTo(gx, gy)
    else ctx.moveTo(gx, gy)
  }
  ctx.closePath()
  ctx.fill()
}

export function grainSize(grain_mm: number): number {
  // powders are drawn as specks that can still be seen
  return Math.min(13, Math.max(1.7, grain_mm * PX_PER_MM))
}

const drawn = new Map<string, HTMLCanvasElement>()
const SWATH = 420

/** Fill a box with one ingredient. Its grains are drawn once and laid out from then on: a share moves at every key. */
export function drawBand(ctx: CanvasRenderingContext2D, x: number, y: number, w: number, h: number, of: Grains) {
  if (w <= 0) return
  const ratio = window.devicePixelRatio || 1
  const name = `${of.key} ${h} ${ratio}`
  let swath = drawn.get(name)
  if (!swath) {
    swath = document.createElement('canvas')
    const own = prepared(swath, SWATH, h)
    if (own) fill(own, 0, 0, SWATH, h, of)
    drawn.set(name, swath)
  }
  for (let at = 0; at < w; at += SWATH) {
    const part = Math.min(SWATH, w - at)
    ctx.drawImage(swath, 0, 0, part * ratio, h * ratio, x + at, y, part, h)
  }
}

function fill(ctx: CanvasRenderingContext2D, x: number, y: number, w: number, h: number, of: Grains) {
  const random = seeded(of.key)
  ctx.save()
  ctx.beginPath()
  ctx.rect(x, y, w, h)
  ctx.clip()
  if (of.grain_mm === 0) {
    const pour = ctx.createLinearGradient(x, y, x, y + h)
    pour.addColorStop(0, shade(of.colour, 0.22))
    pour.addColorStop(0.5, of.colour)
    pour.addColorStop(1, shade(of.colour, -0.18))
    ctx.fillStyle = pour
    ctx.fillRect(x, y, w, h)
    ctx.strokeStyle = shade(of.colour, 0.45)
    ctx.globalAlpha = 0.35
    for (let line = 0; line < h / 22; line++) {
      const at = y + random() * h
      ctx.lineWidth = 1 + random() * 2
      ctx.beginPath()
      ctx.moveTo(x - 5, at)
      for (let along = 0; along <= w + 20; along += 20) {
        ctx.quadraticCurveTo(x + along + 5, at + (random() - 0.5) * 9, x + along + 15, at + (random() - 0.5) * 4)
      }
      ctx.stroke()
    }
  } else {
    const size = grainSize(of.grain_mm)
    const long = of.family === 'herb' ? 2.1 : 1
    ctx.fillStyle = shade(of.colour, -0.22)
    ctx.fillRect(x, y, w, h)
    const count = Math.min(MOST, Math.ceil(((w * h) / (size * size)) * 1.25))
    for (let at = 0; at < count; at++) {
      ctx.fillStyle = shade(of.colour, (random() - 0.45) * 0.55)
      grain(ctx, x + random() * w, y + random() * h, size * (0.6 + random() * 0.8), long, random)
    }
  }
  ctx.restore()
}

/** Scatter a blend's grains over a crust, as many of each as its share, over what is drawn already. */
export function scatter(
  ctx: CanvasRenderingContext2D,
  inside: (random: () => number) => [number, number],
  blend: { of: Grains; share: number }[],
  pieces: number,
  seed: string,
) {
  const random = seeded(seed)
  for (const { of, share } of [...blend].sort((a, b) => a.of.grain_mm - b.of.grain_mm)) {
    if (of.grain_mm === 0) continue
    const size = Math.min(6, Math.max(2, grainSize(of.grain_mm) * 0.75))
    const count = Math.round((pieces * share * 9) / (size * size) + pieces * share * 0.25)
    for (let at = 0; at < count; at++) {
      const [x, y] = inside(random)
      ctx.fillStyle = shade(of.colour, (random() - 0.45) * 0.5)
      grain(ctx, x, y, size * (0.6 + random() * 0.7), of.family === 'herb' ? 2 : 1, random)
    }
  }
}

/** Fill a box with a blend as it lies: its liquids poured, its grains scattered through each other by their shares. */
export function drawMixture(
  ctx: CanvasRenderingContext2D,
  w: number,
  h: number,
  blend: { of: Grains; share: number }[],
  seed: string,
) {
  const mean = meanColour(blend)
  const wet = blend.reduce((sum, { of, share }) => sum + (of.grain_mm === 0 ? share : 0), 0)
  fill(ctx, 0, 0, w, h, { key: seed, colour: wet > 0.3 ? mean : shadeHex(mean, -0.25), grain_mm: 0, family: 'liquid' })
  const inside = (random: () => number): [number, number] => [random() * w, random() * h]
  // a liquid carries few grains, a dry blend lies full of them
  scatter(ctx, inside, blend, ((w * h) / 9) * (wet > 0.3 ? 0.5 : 1.4), seed)
}

function shadeHex(colour: string, by: number): string {
  const channels = sure(shade(colour, by).match(/\d+/g))
  return '#' + channels.map((value) => Number(value).toString(16).padStart(2, '0')).join('')
}

/** The mean colour of a blend by share; what a powder or a bath tints the meat with. */
export function meanColour(blend: { of: Grains; share: number }[]): string {
  const sum: [number, number, number] = [0, 0, 0]
  let total = 0
  for (const { of, share } of blend) {
    for (const at of [0, 1, 2] as const) sum[at] += parseInt(of.colour.slice(1 + at * 2, 3 + at * 2), 16) * share
    total += share
  }
  if (!total) return '#b9807a'
  return (
    '#' +
    sum
      .map((value) =>
        Math.round(value / total)
          .toString(16)
          .padStart(2, '0'),
      )
      .join('')
  )
}

/** A canvas context in device pixels, cleared, with CSS pixels as its unit. */
export function prepared(canvas: HTMLCanvasElement, w: number, h: number): CanvasRenderingContext2D | null {
  const ratio = window.devicePixelRatio || 1
  canvas.width = Math.round(w * ratio)
  canvas.height = Math.round(h * ratio)
  const ctx = canvas.getContext('2d')
  ctx?.setTransform(ratio, 0, 0, ratio, 0, 0)
  return ctx
}
