import { expect, it } from 'vitest'
import { grainSize, meanColour, seeded } from './grains'

it('draws the same blend the same way every time, coarse larger than fine', () => {
  const [a, b] = [seeded('salt/flake'), seeded('salt/flake')]
  expect(Array.from({ length: 5 }, a)).toEqual(Array.from({ length: 5 }, b))
  expect(seeded('salt/flake')()).not.toBe(seeded('pepper/fine')())
  expect(grainSize(0.2)).toBeLessThan(grainSize(1.8))
  expect(grainSize(1.8)).toBeLessThan(grainSize(3))
})

it('tints a bath by the shares of what is in it', () => {
  const of = (colour: string) => ({ key: colour, colour, grain_mm: 0, family: 'liquid' })
  expect(
    meanColour([
      { of: of('#000000'), share: 0.5 },
      { of: of('#ffffff'), share: 0.5 },
    ]),
  ).toBe('#808080')
  expect(meanColour([])).toBe('#b9807a')
})
