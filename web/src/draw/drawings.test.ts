import { mount } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { drawMixture, scatter } from './grains'
import JarDrawing from './JarDrawing.vue'
import { pen, traced, type Traced } from './pen'
import { outlineOf } from './pieces'
import { shadeOf } from './shade'

const of = (shape: string, more: object = {}) => ({
  shape,
  length_cm: 20,
  width_cm: 12,
  thickness_cm: 3,
  pieces: 1,
  ...more,
})
const outline = (shape: string, more: object = {}, middle = 100, reach = 80) =>
  outlineOf(of(shape, more), middle, reach) as unknown as Traced
const ALL = ['box', 'bird', 'rack', 'cubes', 'strips', 'cylinder', 'ellipsoid']

beforeEach(traced)
afterEach(() => {
  vi.restoreAllMocks()
})

describe('the outline of a piece on its plate', () => {
  it('lies about the middle and never beyond its reach, one or many', () => {
    for (const shape of ALL)
      for (const pieces of [1, 2, 3, 5, 8, 12, 40]) {
        const { points } = outline(shape, { pieces })
        const far = Math.max(...points.map(([x, y]) => Math.hypot(x - 100, y - 100)))
        expect(far, `${pieces} of ${shape}`).toBeLessThan(80 * 1.25)
        const { left, right, top, bottom } = outline(shape, { pieces }).box
        expect(Math.abs((left + right) / 2 - 100), `${pieces} of ${shape}`).toBeLessThan(20)
        expect(Math.abs((top + bottom) / 2 - 100), `${pieces} of ${shape}`).toBeLessThan(20)
      }
  })

  it('has as many pieces as there are, twelve at most, and the same each time', () => {
    expect([1, 4, 12, 40].map((pieces) => outline('cubes', { pieces }).parts)).toEqual([1, 4, 12, 12])
    expect(outline('cubes', { pieces: 5 }).points).toEqual(outline('cubes', { pieces: 5 }).points)
  })

  it('keeps the sides of the piece, and is a shape of its own for each kind', () => {
    const sides = (more: object) => {
      const { left, right, top, bottom } = outline('ellipsoid', more).box
      return (right - left) / (bottom - top)
    }
    expect(sides({ width_cm: 10 })).toBeGreaterThan(sides({ width_cm: 18 }))
    const fillet = outline('box', { width_cm: 8, thickness_cm: 2 })
    const steak = outline('box', { width_cm: 14, thickness_cm: 3 })
    const joint = outline('box', { width_cm: 14, thickness_cm: 10 })
    const lengths = [...ALL.map((shape) => outline(shape)), fillet, steak, joint].map((one) =>
      JSON.stringify(one.points.map((point) => point.map(Math.round))),
    )
    expect(new Set(lengths).size).toBe(lengths.length)
  })
})

const grains = (key: string, grain_mm: number, colour = '#808080') => ({ key, colour, grain_mm, family: 'salt' })

describe('a jar', () => {
  function drawn(full: number, bands = [{ of: grains('salt', 1), name: 'salt', share: 1 }]) {
    const { did, context } = pen()
    vi.spyOn(HTMLCanvasElement.prototype, 'getContext').mockReturnValue(context)
    const jar = mount(JarDrawing, { props: { bands, full, name: 'Lamb rub', width: 100 } })
    const level = did.find((one) => one.name === 'fillRect')?.given as number[]
    return { jar, level, grains: did.filter((one) => one.name === 'beginPath').length }
  }

  it('is filled to its level in the colour of what is in it, and never beyond the glass', () => {
    const [empty, half, all, more] = [0, 50, 100, 140].map((full) => drawn(full).level)
    // glass from 22.1 to 126 of 130: heights by hand
    expect(empty?.[3]).toBe(0)
    expect(half?.[3]).toBeCloseTo(51.95, 2)
    expect(all?.[3]).toBeCloseTo(103.9, 2)
    expect(all?.[1]).toBeCloseTo(22.1, 2)
    expect(more).toEqual(all)
  })

  it('holds more grains the fuller it is, and says how full', () => {
    expect(drawn(0).grains).toBe(0)
    expect(drawn(80).grains).toBeGreaterThan(drawn(20).grains * 3)
    expect(drawn(42.4).jar.find('canvas').attributes('aria-label')).toBe('A jar of Lamb rub, 42 % full')
  })
})

describe('a blend as it lies', () => {
  it('has each in its share, fine ones below coarse ones, and no grain of a liquid', () => {
    const { did, context } = pen()
    const blend = [
      { of: grains('flake', 2, '#ff0000'), share: 0.5 },
      { of: grains('powder', 0.1, '#0000ff'), share: 0.5 },
      { of: grains('oil', 0, '#00ff00'), share: 0 },
    ]
    scatter(context, (random) => [random(), random()], blend, 100, 'x')
    const kinds = did
      .filter((one) => one.name === 'fill')
      .map((one) => (/^rgb\((\d+) (\d+) (\d+)\)$/.exec(one.fill) ?? []).slice(1, 4).map(Number))
    const red = kinds.map(([r = 0, , b = 0]) => r > b)
    expect(red.lastIndexOf(false)).toBeLessThan(red.indexOf(true))
    // by hand: size 2 px and 6 px; 50 × 9 / 4 + 12.5 = 125 and 50 × 9 / 36 + 12.5 = 25
    expect([red.filter((one) => !one).length, red.filter(Boolean).length]).toEqual([125, 25])
  })

  it('lies thinner in a liquid than dry', () => {
    const count = (oil: number) => {
      const { did, context } = pen()
      const blend = [
        { of: grains('salt', 1), share: 1 - oil },
        { of: grains('oil', 0), share: oil },
      ]
      drawMixture(context, 90, 90, blend, 'x')
      return did.filter((one) => one.name === 'fill').length
    }
    expect(count(0)).toBeGreaterThan(count(0.4) * 3)
  })
})

it('shades a face by its salt, and nothing where there is none', () => {
  const set: number[][] = []
  const context = {
    createImageData: (w: number, h: number) => ({ data: new Uint8ClampedArray(w * h * 4) }),
    putImageData: ({ data }: { data: Uint8ClampedArray }) => set.push([...data]),
  }
  vi.spyOn(HTMLCanvasElement.prototype, 'getContext').mockReturnValue(context as never)
  vi.spyOn(HTMLCanvasElement.prototype, 'toDataURL').mockReturnValue('data:x')
  expect(shadeOf(['.0', '39'])).toBe('data:x')
  expect(set[0]?.filter((_, n) => n % 4 === 3)).toEqual([0, 0, 72, 216])
  expect(shadeOf([])).toBe('')
})
