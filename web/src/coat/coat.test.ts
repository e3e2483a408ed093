import { QueryClient, VueQueryPlugin } from '@tanstack/vue-query'
import { mount } from '@vue/test-utils'
import { expect, it } from 'vitest'
import type { Schemas } from '../api/client'
import AddLayer from './AddLayer.vue'
import HoldFields from './HoldFields.vue'
import LayerBand from './LayerBand.vue'
import { layerColour, layerName } from './layers'
import PieceDrawing from './PieceDrawing.vue'
import SaltBar from './SaltBar.vue'
import SaltCurves from './SaltCurves.vue'
import { choiceOf } from '../tested'
import { sure } from '../kit/sure'

const stubs = {
  VIcon: true,
  'v-btn': { template: '<button><slot /></button>' },
  Why: { template: '<span><slot /></span>' },
  GrainStrip: true,
}
const global = { stubs, plugins: [VueQueryPlugin] }
const blends = [
  { id: 'rub', name: 'Lamb rub', kind: 'dry rub', grinds: ['salt'], shares: [1] },
  { id: 'bath', name: 'Buttermilk', kind: 'marinade', grinds: [], shares: [] },
] as unknown as Schemas['BlendRow'][]
const grinds = new Map([['salt', { name: 'Sea salt', colour: '#ffffff', grain_mm: 1 }]]) as never
const rub = { kind: 'rub', blend_id: 'rub', dose: '5', hold: '2 h' } as Schemas['LayerDocument']
const figure = (value: number) => ({ value, unit: 'mm', error: '', steps: [], low: null, high: null })

it('names a layer by its blend, its ingredient or what is missing, and paints it so', () => {
  expect(layerName(rub, blends, grinds)).toBe('Lamb rub')
  expect(layerName({ ...rub, blend_id: null, grind: 'salt' }, blends, grinds)).toBe('Sea salt')
  expect(layerName({ ...rub, blend_id: 'gone' }, blends, grinds)).toContain('nothing chosen yet')
  expect(layerColour(rub, blends, grinds)).not.toBe(layerColour({ ...rub, kind: 'marinade' }, blends, grinds))
})

it('moves a layer by the arrow keys and by its buttons, outwards and inwards, but not past the ends', async () => {
  const props = { layer: rub, name: 'Lamb rub', colour: '#000', reading: null, at: 0, last: false, open: false }
  const row = mount(LayerBand, { props, global })
  await row.find('.grip').trigger('keydown', { key: 'ArrowUp' })
  expect(row.emitted('move')).toEqual([[0, 1]])
  const [out, inwards] = row.findAll('.steps button')
  expect(inwards?.attributes('disabled')).toBeDefined()
  await out?.trigger('click')
  expect(row.emitted('move')).toHaveLength(2)
})

it('says what a layer adds, and that it takes the rest when it has no dose', () => {
  const reading = {
    dose_setting: 2.345, dose: { ...figure(6), unit: 'g' }, salt: figure(0.46), so_far: 1.5, note: '',
    spoons: { text: '2 tsp' },
  } as never // prettier-ignore
  const props = { layer: { ...rub, dose: '' }, name: 'Salt', colour: '#000', reading, at: 0, last: true, open: false }
  const text = mount(LayerBand, { props, global }).text()
  expect(text).toContain('the rest: 2.35')
  expect(text).toContain('2 tsp')
  expect(text).toContain('+0.46 %')
})

it('has the salt wanted moved by keys within its bounds, and names zones only where there is room', async () => {
  const zones = [{ name: 'light', below_percent: 1 }, { name: 'narrow', below_percent: 1.05 }, { name: 'salty', below_percent: null }] // prettier-ignore
  const layers = [{ value: 1.2, colour: '#123456', name: 'rub' }]
  const bar = mount(SaltBar, { props: { layers, low: 1, high: 1.4, full: 2.4, zones, aim: 0.12 } })
  expect(bar.find('i').attributes('style')).toContain('width: 50%')
  expect(bar.findAll('.zone').map((zone) => zone.text())).toEqual(['light', 'salty'])
  await bar.find('.aim').trigger('keydown', { key: 'ArrowLeft' })
  await bar.find('.aim').trigger('keydown', { key: 'ArrowRight' })
  await bar.find('.aim').trigger('keydown', { key: 'a' })
  expect(bar.emitted('aim')).toEqual([[0.1], [0.12 + 0.05]])
})

it('puts a layer on only when it is chosen what it is of', async () => {
  const form = mount(AddLayer, { props: { blends, bath: false }, global })
  await form.find('form').trigger('submit')
  expect(form.emitted('add')).toBeUndefined()
  await choiceOf(form, 'Of').take('blend|rub')
  await form.find('form').trigger('submit')
  expect(form.emitted('add')).toEqual([[{ blend_id: 'rub' }]])
})

it('holds in the cold, on the bench, outside or in warm water, each with its own temperature', async () => {
  const props = { hold: '2 h', place: 'fridge', heldAt: '3 °C', celsius: 3, errors: { heldAt: 'Too warm.' } }
  const queryClient = new QueryClient()
  const place = (key: string, says: string, usual_c: number) => ({ key, says, usual_c, set: true })
  const places = [place('fridge', 'in the fridge', 4), place('warm water', 'in a warm water bath', 57)]
  queryClient.setQueryData(['catalogue'], { places: [...places, place('pot', 'in the pot', 90)] })
  const fields = mount(HoldFields, { props, global: { stubs, plugins: [[VueQueryPlugin, { queryClient }]] } })
  const where = choiceOf(fields, 'Where')
  expect(where.offers).toEqual(['in the fridge', 'in a warm water bath'])
  await where.take('warm water')
  expect(fields.emitted('update:place')).toEqual([['warm water']])
  // what was typed for another place is not this one's
  expect(fields.emitted('update:heldAt')).toEqual([['']])
  await sure(fields.findAll('input[type=text]').at(-1)).setValue('135 °F')
  expect(sure(fields.emitted('update:heldAt')).at(-1)).toEqual(['135 °F'])
  expect(fields.text()).toContain('Too warm.')
  await fields.setProps({ ...props, pot: true })
  expect(() => choiceOf(fields, 'Where')).toThrow()
})

it('draws pieces to one scale, says their size, and has every face tapped', async () => {
  const solid = {
    shape: 'box',
    length_cm: 20,
    width_cm: 10,
    thickness_cm: 3,
    pieces: 1,
    area_cm2: 580,
    volume_cm3: 600,
  }
  const faces = [{ name: 'skin', state: 'bare', area_cm2: 90 }]
  const drawn = (of: typeof solid) =>
    mount(PieceDrawing, {
      props: { solid: of, faces, bones: [], thin: 3, thick: 3, meat: 3, longest: 30, tallest: 13 },
      global,
    })
  const wide = (of: typeof solid) => {
    const xs = [...sure(drawn(of).find('.meat').attributes('d')).matchAll(/[ML]([\d.]+) /g)].map((found) =>
      Number(found[1]),
    )
    return Math.max(...xs) - 12
  }
  expect(wide(solid) / wide({ ...solid, length_cm: 10 })).toBeGreaterThan(1.9)
  expect(drawn(solid).text()).toContain('3.0 cm thick in the middle')
  expect(drawn({ ...solid, shape: 'bird', thickness_cm: 11 }).text()).toContain('11.0 cm high, the breast 3.0 cm thick')
  const four = drawn({ ...solid, pieces: 4 })
  expect(four.find('svg').attributes('aria-label')).toBe('4 pieces, each 20.0 cm long, 10.0 cm wide, 3.0 cm thick')
  await four.find('[aria-label="skin: bare"]').trigger('click')
  expect(four.emitted('face')).toEqual([['skin']])
})

it('lays the pieces over each other, an injected one between its sites too', async () => {
  const sample = {
    time_s: 7200, whole_s: 7200, fire_s: 0, depths_cm: [0, 0.5, 2], percent: [4, 1, 0], low: [4, 0.8, 0], high: [5, 1.2, 0.1],
    least: [] as number[], reach: figure(2.7), says: ['It seasons the surface.'],
  } // prettier-ignore
  const cored = (letter: string, of = sample) => ({ letter, name: letter, sample: of })
  const core = mount(SaltCurves, { props: { cores: [cored('A'), cored('B')], own: 'A' }, global })
  expect(core.findAll('.curve')).toHaveLength(2)
  expect(core.findAll('.least')).toHaveLength(0)
  expect(core.find('svg').attributes('aria-label')).toContain('A: 1.00 % salt half a centimetre in')
  await core.setProps({ cores: [cored('A', { ...sample, least: [3, 0.5, 0] }), cored('B')] })
  expect(core.findAll('.piece-A .least, .piece-B .least')).toHaveLength(1)
  expect(core.find('svg').attributes('aria-label')).toContain('0.50 % where the needle reached least')
})
