import { VueQueryPlugin } from '@tanstack/vue-query'
import { mount } from '@vue/test-utils'
import { expect, it } from 'vitest'
import { ref } from 'vue'
import MethodPlate from './MethodPlate.vue'
import { choiceOf } from '../tested'
import { sure } from '../kit/sure'
import { BENCH } from './useBlend'

type Step = { do: 'mix' | 'simmer'; of: string[]; to: string; by: string; lasts: string; note: string }
const step = (over: Partial<Step>): Step => ({ do: 'mix', of: [], to: '', by: '', lasts: '', note: '', ...over })
const figure = (value: number) => ({ value, unit: 'g', error: '', steps: [], low: null, high: null })
const names = [
  { key: 'honey/liquid', name: 'Honey' },
  { key: 'rub', name: 'Lamb rub' },
]
function plate(steps: Step[], errors: Record<string, string> = {}) {
  const reading = ref({ batch: figure(240), finished: figure(195), after_g: [240, 195] })
  const bench = { reading, errors: ref(errors), body: () => ({}) } as never
  return mount(MethodPlate, {
    global: { plugins: [VueQueryPlugin], provide: { [BENCH as symbol]: bench } },
    props: { modelValue: steps, names },
  })
}
const last = (shown: ReturnType<typeof plate>) => (shown.emitted('update:modelValue')?.at(-1)?.[0] ?? []) as Step[]

it('says what goes in, what comes out, and what is left after a reduction', () => {
  const text = plate([step({ of: ['honey/liquid'] }), step({ do: 'simmer', by: 'by a quarter' })]).text()
  expect(text).toContain('240 g goes in')
  expect(text).toContain('195 g')
  expect(text).toContain('195 g left')
})

it('adds lines to a step, takes them out, and names one that is gone', async () => {
  const shown = plate([step({ of: ['honey/liquid', 'gone/away'] })])
  expect(shown.text()).toContain('gone from the blend')
  await choiceOf(shown, 'Add a line to step 1').take('rub')
  expect(sure(last(shown)[0]).of).toEqual(['honey/liquid', 'gone/away', 'rub'])
  await shown.find('.chip button').trigger('click')
  expect(sure(last(shown)[0]).of).toEqual(['gone/away', 'rub'])
})

it('moves, adds and removes steps', async () => {
  const shown = plate([step({ note: 'first' }), step({ note: 'second' })])
  await shown.find('[aria-label="Move step 2 up"]').trigger('click')
  expect(last(shown).map((one) => one.note)).toEqual(['second', 'first'])
  await shown.find('[aria-label="Remove step 1"]').trigger('click')
  expect(last(shown).map((one) => one.note)).toEqual(['first'])
  await sure(shown.findAll('.add button')[3]).trigger('click')
  expect(last(shown).at(-1)).toMatchObject({ do: 'simmer', by: 'by a third' })
})

it('shows a refusal at the step it is about', () => {
  const shown = plate([step({}), step({ do: 'simmer', by: 'by 99 %' })], { 'method.1.by': 'At most 24 %.' })
  expect(sure(shown.findAll('li')[1]).find('[role=alert]').text()).toBe('At most 24 %.')
  expect(sure(shown.findAll('li')[0]).find('[role=alert]').exists()).toBe(false)
})
