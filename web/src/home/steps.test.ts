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
    typed: { layers: layers.map(({ kind, place }) => ({ kind, place })) },
    marks: layers.map(({ kind }) => ({ blend_name: kind === 'pre-salt' ? '' : name })),
    reading: { layers },
  }) as unknown as Schemas['BoardPieceOut']

it('says what each step takes', () => {
  const rubbed = piece('Weir House lamb rub', layer('pre-salt', 13), layer('rub', 37))
  expect(stepDetail('mix', null, rubbed, '15 min', show)).toBe('37 g of Weir House lamb rub')
  expect(stepDetail('salt', 0, rubbed, '30 min', show)).toBe('13 g, 2 tsp, hold 30 min')
  expect(stepDetail('coat', 1, rubbed, '2 h', show)).toBe('37 g, hold 2 h')
  const bathed = piece('Orange and buttermilk', layer('marinade', 563, {}, 'fridge'))
  expect(stepDetail('mix', null, bathed, '15 min', show)).toContain('set a reserve aside first')
  expect(stepDetail('bag', 0, bathed, '16 h', show)).toBe('563 ml, hold 16 h cold')
  const aside = piece('Orange and buttermilk', layer('marinade', 563, { reserve_g: 120 }))
  expect(stepDetail('mix', null, aside, '', show)).toBe(
    '563 ml of Orange and buttermilk; and 120 g more to set aside first',
  )
  const places = ['bench', 'cool box', 'outside', 'warm water'].map((place) =>
    stepDetail('bag', 0, piece('Bath', layer('marinade', 9, {}, place)), '1 h', show).replace('9 ml, hold 1 h ', ''),
  )
  expect(places).toEqual(['on the bench', 'in a cool box', 'outside', 'in warm water'])
  const needled = piece('Stock', layer('injection', 268, { injection: { sites_in_all: 43 } }))
  expect(stepDetail('inject', 0, needled, '8 h', show)).toBe('268 g, 43 sites, hold 8 h')
  expect(stepDetail('on', null, bathed, '5 h', show)).toBe('5 h')
})

it('still names a step of a piece that cannot be read', () => {
  const gone = {
    typed: { layers: [{ kind: 'rub' }] },
    marks: [{ blend_name: 'Rub' }],
    reading: null,
  } as unknown as Schemas['BoardPieceOut']
  expect(stepDetail('mix', null, gone, '15 min', show)).toBe('some of Rub')
  expect(stepDetail('salt', 0, gone, '30 min', show)).toBe('')
  expect(['mix', 'bag', 'plate', 'smoke'].map(stepName)).toEqual(['Mix', 'In the bag', 'Plate', 'smoke'])
})
