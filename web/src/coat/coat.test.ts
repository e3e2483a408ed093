import { VueQueryPlugin } from '@tanstack/vue-query'
import { mount } from '@vue/test-utils'
import { expect, it } from 'vitest'
import type { Schemas } from '../api/client'
import ArmColumn from './ArmColumn.vue'
import BlendPick from './BlendPick.vue'
import HoldFields from './HoldFields.vue'
import PieceDrawing from './PieceDrawing.vue'

const stubs = {
  VIcon: true,
  'v-btn': { template: '<button><slot /></button>' },
  RouterLink: { template: '<a><slot /></a>' },
  Why: { template: '<span><slot /></span>' },
  PieceFields: true,
}
const global = { stubs, plugins: [VueQueryPlugin] }
const blends = [
  { id: 'rub', name: 'Lamb rub', kind: 'dry rub' },
  { id: 'bath', name: 'Buttermilk', kind: 'marinade' },
] as unknown as Schemas['BlendRow'][]
const salt = { kind: 'salt', grind: 'table-salt/fine', percent: '0.7' }
const rub = { kind: 'rub', blend_id: 'rub', coat: '5', surface: 'moist', hold: '2 h', hold_c: 4, revision: 3 }

function column(...layers: object[]) {
  const arm = { label: 'A', name: 'Rubbed', piece: {}, layers } as unknown as Schemas['ArmDocument']
  const props = { modelValue: arm, reading: null, stored: undefined, blends, errors: {}, longest: 30 }
  return { mounted: mount(ArmColumn, { props, global }) }
}

it('passes on which blend was chosen, and shows the layers in their order', () => {
  const { mounted } = column(salt, rub)
  mounted.findComponent(BlendPick).vm.$emit('choose', 'bath')
  expect(mounted.emitted('choose')).toEqual([['bath']])
  const order = mounted.findAll('section.layer').map((layer) => layer.attributes('aria-label'))
  expect(order).toEqual(['Salt by weight', 'Rub'])
})

it('says from which state a layer was mixed, and offers the blend as it is now', async () => {
  const stored = { blend_name: 'Lamb rub', changed_since: true } as Schemas['LayerOut']
  const props = { layer: rub as Schemas['LayerDocument'], stored, blends }
  const pick = mount(BlendPick, { props, global })
  expect(pick.text()).toContain('Mixed as revision 3.')
  await pick.find('button').trigger('click')
  expect(pick.emitted('current')).toHaveLength(1)
  await pick.find('select').setValue('bath')
  expect(pick.emitted('choose')).toEqual([['bath']])
})

it('still names a blend that was deleted', () => {
  const layer = { ...rub, blend_id: 'gone' } as Schemas['LayerDocument']
  const stored = { blend_name: 'Old rub' } as Schemas['LayerOut']
  const pick = mount(BlendPick, { props: { layer, stored, blends }, global })
  expect(pick.find('option[disabled]').text()).toBe('Old rub (deleted)')
  expect(pick.text()).not.toContain('Open')
})

it('holds in the cold or on the bench', async () => {
  const fields = mount(HoldFields, { props: { hold: '2 h', celsius: 4 }, global })
  await fields.findAll('input[type=radio]')[1].setValue(true)
  expect(fields.emitted('update:celsius')).toEqual([[21]])
})

it('draws pieces to one scale and says their size', () => {
  const solid = { shape: 'box', length_cm: 20, width_cm: 10, thickness_cm: 3, pieces: 1 }
  const small = { ...solid, length_cm: 10, width_cm: 5 }
  const wide = (of: typeof solid) => {
    const drawing = mount(PieceDrawing, { props: { solid: of, bareFace: '', longest: 30 }, global })
    return Number(drawing.find('rect').attributes('width'))
  }
  expect(wide(solid) / wide(small)).toBeCloseTo(2)
  const four = mount(PieceDrawing, { props: { solid: { ...solid, pieces: 4 }, bareFace: 'skin', longest: 30 }, global })
  expect(four.find('svg').attributes('aria-label')).toBe('4 pieces, each 20.0 cm long, 10.0 cm wide, 3.0 cm thick')
  expect(four.find('.bare').exists()).toBe(true)
  expect(four.findAll('rect')).toHaveLength(5)
})
