import { expect, it } from 'vitest'
import type { Schemas } from '../api/client'
import { stepDetail, stepName } from './steps'

const show = {
  dose: (g: number) => `${g} g`,
  mass: (g: number) => `${g} g`,
  volume: (ml: number) => `${ml} ml`,
  temperature: (c: number) => `${c} °C`,
}
const layer = (kind: string, value: number, more: object = {}, place = '') => ({
  kind,
  place,
  ...more,
  dose: { value, unit: kind === 'marinade' ? 'ml' : 'g' },
  spoons: { text: '2 tsp' },
})
const piece = (name: string, ...layers: ReturnType<typeof layer>[]) =>
  ({
    typed: { letter: 'A', layers: layers.map(({ kind, place, ...more }) => ({ kind, place, ...more })) },
    marks: layers.map(({ kind }) => ({ blend_name: kind === 'pre-salt' ? '' : name })),
    reading: { layers },
  }) as unknown as Schemas['BoardPieceOut']

type Step = Schemas['StepOut']
const mix = (name: string, amount: number | null, more: Partial<Step['mixes'][number]> = {}) => ({
  name,
  amount,
  unit: 'g',
  aside_g: 0,
  letters: ['A'],
  ...more,
})
const step = (kind: string, layer: number | null, minutes = 15, mixes: Step['mixes'] = []) =>
  ({ kind, layer, lasts_s: minutes * 60, mixes }) as Step

it('says what each step takes', () => {
  const rubbed = piece('Weir House lamb rub', layer('pre-salt', 13), layer('rub', 37))
  expect(stepDetail(step('salt', 0, 30), rubbed, show)).toBe('13 g, 2 tsp, hold 30 min')
  expect(stepDetail(step('coat', 1, 120), rubbed, show)).toBe('37 g, hold 2 h')
  const bathed = piece('Orange and buttermilk', layer('marinade', 563, {}, 'fridge'))
  expect(stepDetail(step('bag', 0, 960), bathed, show)).toBe('563 ml, hold 16 h cold')
  const places = ['bench', 'cool box', 'outside', 'warm water'].map((place) =>
    stepDetail(step('bag', 0, 60), piece('Bath', layer('marinade', 9, {}, place)), show).replace('9 ml, hold 1 h ', ''),
  )
  expect(places).toEqual(['on the bench', 'in a cool box', 'outside', 'in warm water'])
  const needled = piece('Stock', layer('injection', 268, { injection: { sites_in_all: 43 } }))
  expect(stepDetail(step('inject', 0, 480), needled, show)).toBe('268 g, 43 sites, hold 8 h')
  expect(stepDetail(step('on', null, 300), bathed, show)).toBe('5 h')
})

it('says what goes on over the fire and at the board, and when', () => {
  const all = piece(
    '',
    layer('wrap', 92),
    layer('spritz', 5, { times: '4' }),
    layer('finishing salt', 3),
    layer('x', 9),
  )
  expect(stepDetail(step('wrap', 0, 100), all, show)).toBe('92 g, 1 h 40 min before it comes off')
  expect(stepDetail(step('spritz', 1, 200), all, show)).toBe('5 g, 4 times from here on')
  expect(stepDetail(step('finish', 2, 0), all, show)).toBe('3 g')
  expect(stepDetail(step('pot', 3, 120), all, show)).toBe('9 g, 2 h in it')
})

it('mixes a blend that several pieces take once, for all of them', () => {
  const rubbed = piece('Rub', layer('rub', 37))
  const both = step('mix', null, 15, [mix('Rub', 74, { letters: ['A', 'B'] }), mix('Salt', 5)])
  expect(stepDetail(both, rubbed, show)).toBe('74 g of Rub for A and B, 5 g of Salt')
  const bath = { unit: 'ml' }
  expect(stepDetail(step('mix', null, 15, [mix('Bath', 563, bath)]), rubbed, show)).toBe('563 ml of Bath')
  expect(stepDetail(step('aside', null, 0, [mix('Bath', 120)]), rubbed, show)).toBe('120 g of Bath')
  expect(stepDetail(step('mix', null, 15, [mix('Bath', 563, { ...bath, aside_g: 120 })]), rubbed, show)).toBe(
    '563 ml of Bath; and 120 g more to set aside first',
  )
})

it('still names a step of a piece that cannot be read', () => {
  const gone = {
    typed: { letter: 'A', layers: [{ kind: 'rub' }] },
    marks: [{ blend_name: 'Rub' }],
    reading: null,
  } as unknown as Schemas['BoardPieceOut']
  expect(stepDetail(step('mix', null, 15, [mix('Rub', null)]), gone, show)).toBe('some of Rub')
  expect(stepDetail(step('salt', 0, 30), gone, show)).toBe('')
  expect(['mix', 'aside', 'plate', 'smoke'].map(stepName)).toEqual(['Mix', 'Set aside for later', 'Plate', 'smoke'])
})
