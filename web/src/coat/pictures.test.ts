import { describe, expect, it } from 'vitest'
import { stepped, siteTold, within, type Place } from './siteKeys'
import { curve, HIGH, topOf, WIDE } from './sides'

const face = { length_cm: 20, width_cm: 10 }
const key = (name: string) => new KeyboardEvent('keydown', { key: name, cancelable: true })
const sites: Place[] = [
  [0.2, 0.5],
  [0.5, 0.5],
  [0.8, 0.5],
]

describe('a site on the map', () => {
  it('moves two millimetres of the meat at an arrow key, and stays on the face', () => {
    expect(stepped(key('ArrowRight'), [0.5, 0.5], face)).toEqual([0.51, 0.5])
    expect(stepped(key('ArrowUp'), [0.5, 0.5], face)).toEqual([0.5, 0.48])
    expect(stepped(key('ArrowDown'), [0.5, 1], face)).toEqual([0.5, 1])
    expect(stepped(key('a'), [0.5, 0.5], face)).toBeNull()
    expect([within(-0.2), within(1.4), within(0.12345)]).toEqual([0, 1, 0.123])
  })

  it('is left for another, and goes, but never the last', () => {
    const told = (name: string, at: number, of = sites) => siteTold(key(name), at, of, face)
    expect(['PageDown', 'PageUp', 'Home', 'End'].map((name) => told(name, 1)?.go)).toEqual([2, 0, 0, 2])
    expect([told('PageDown', 2)?.go, told('PageUp', 0)?.go]).toEqual([2, 0])
    expect(told('Delete', 1)).toEqual({})
    expect(told('Delete', 0, sites.slice(0, 1))).toBeNull()
    expect(told('Tab', 1)).toBeNull()
    expect(told('ArrowLeft', 1)?.to).toEqual([0.49, 0.5])
  })
})

describe('ways side by side', () => {
  it('are drawn on one scale, that the very surface does not set', () => {
    const ways = [
      { depths_cm: [0, 0.2, 1, 3], percent: [9, 1.5, 0.4, 7] },
      { depths_cm: [0, 0.2], percent: [4, 0.3] },
    ]
    expect(topOf(ways)).toBe(1.5)
    expect(topOf([])).toBe(0.5)
  })

  it('fall from the salt at the surface to nothing, as deep as the picture goes', () => {
    // by hand: half of the top at 1 of 2 cm is in the middle; what is above the top is cut there
    expect(curve([0, 1], [4, 1], 2)).toBe(
      `M0 ${HIGH}L0.0 0.0L${(WIDE / 2).toFixed(1)} ${(HIGH / 2).toFixed(1)}L${WIDE * 1.2} ${HIGH}Z`,
    )
    expect(curve([0, 5], [1, 1], 2)).not.toContain('L375')
    expect(curve([], [], 2)).toBe('')
  })
})
