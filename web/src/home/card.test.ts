import { expect, it } from 'vitest'
import type { Schemas } from '../api/client'
import { cardOf, cardText } from './card'

const show = {
  dose: (g: number) => `${g} g`,
  mass: (g: number) => `${g} g`,
  volume: (ml: number) => `${ml} ml`,
  temperature: (c: number) => `${c} °C`,
}
const names = { cut: () => 'Lamb shoulder', grind: () => 'kosher salt', percent: (value: number) => `${value} %` }
const at = (clock: string) => `2026-12-05T${clock}`
const cook = {
  name: 'Supper', serve_at: at('18:30'), noted: 'Salt it the night before.',
  pieces: [
    {
      typed: {
        letter: 'A', name: 'Rubbed', cut: 'lamb-shoulder', mass: '2.3 kg',
        layers: [
          { kind: 'pre-salt', grind: 'kosher-dense/flake', hold: '16 h' },
          { kind: 'marinade', grind: '', hold: '2 h' },
          { kind: 'at the table', grind: '', hold: '' },
        ],
      },
      marks: [{ blend_name: '' }, { blend_name: 'Buttermilk' }, { blend_name: 'Quay sauce' }],
      reading: {
        salt: { value: 1.2 },
        layers: [
          { dose: { value: 13, unit: 'g' }, spoons: { text: '2 tsp' }, each_g: [5, 8] },
          { dose: { value: 500, unit: 'ml' }, spoons: { text: '2 cups' }, each_g: [] },
          { dose: { value: 200, unit: 'g' }, spoons: { text: '1 cup' }, each_g: [] },
        ],
      },
      steps: [
        { kind: 'on', layer: null, begins_at: at('13:00'), lasts_s: 18000, mixes: [] },
        { kind: 'pass', layer: 2, begins_at: at('18:30'), lasts_s: 0, mixes: [] },
      ],
    },
    { typed: { letter: 'B', name: 'Plain', cut: 'x', mass: '1 kg', layers: [{ kind: 'rub', grind: '', hold: '' }] }, marks: [], reading: null, steps: [] },
  ],
} as unknown as Schemas['BoardOut'] // prettier-ignore

it('is the meat, what goes on it in order, and when what is done', () => {
  expect(cardText(cardOf(cook, show, names))).toBe(`Supper, Saturday 5 December 18:30

Last time: Salt it the night before.

A  Rubbed: Lamb shoulder, 2.3 kg, 1.2 % salt in all
  1. kosher salt, pre-salt, 13 g, 2 tsp, on each 5 g + 8 g, hold 16 h
  2. Buttermilk, marinade, 500 ml, hold 2 h
  3. Quay sauce, at the table, 200 g, 1 cup
  Sat 13:00 On the fire, 5 h
  Sat 18:30 At the table, 200 g

B  Plain: Lamb shoulder, 1 kg
  1. rub, rub
`)
})
