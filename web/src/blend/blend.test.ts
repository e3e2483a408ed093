import { VueQueryPlugin } from '@tanstack/vue-query'
import { mount } from '@vue/test-utils'
import { expect, it } from 'vitest'
import { grindName, grindWord, type Grind } from '../ui/catalogue'
import GrainStrip from '../ui/GrainStrip.vue'
import BatchRow from './BatchRow.vue'
import BlendReads from './BlendReads.vue'
import LineRow from './LineRow.vue'

const stubs = { VIcon: true, Why: { props: ['figure', 'of'], template: '<span><slot /></span>' } }
const global = { stubs, plugins: [VueQueryPlugin] }
const figure = (value: number, unit: string, low: number | null = null, high: number | null = null) => ({
  value,
  unit,
  low,
  high,
  error: '',
  steps: [],
})
const reading = {
  grind: 'black-pepper/cracked',
  share: figure(19.6, '%'),
  mass: figure(11.76, 'g'),
  volume_ml: 23.2,
  spoons: { text: '1 tbsp + 1¾ tsp', volume: figure(23, 'ml') },
}
const line = { parts: '3', basis: 'spoon' as const, name: 'Black pepper', grind: 'cracked', colour: '#3a332d' }

it('shows what a line comes to, and passes on what is typed as it is typed', async () => {
  const row = mount(LineRow, { props: { ...line, reading }, global })
  expect(row.text()).toContain('19.6 %')
  expect(row.text()).toContain('11.8 g')
  expect(row.text()).toContain('1 tbsp + 1¾ tsp')
  await row.find('input.parts').setValue('1½')
  expect(row.emitted('update:parts')).toEqual([['1½']])
  await row.findAll('input[type=radio]')[1].setValue(true)
  expect(row.emitted('update:basis')).toEqual([['scale']])
  await row.find('button[aria-label="Remove Black pepper, cracked"]').trigger('click')
  expect(row.emitted('remove')).toHaveLength(1)
})

it('ties a sentence to the part it is about and shows no stale number of another line', () => {
  const row = mount(LineRow, { props: { ...line, parts: '0', reading: null, error: '0 parts is nothing.' }, global })
  const input = row.find('input.parts')
  expect(input.attributes('aria-invalid')).toBe('true')
  expect(row.find(`[id="${input.attributes('aria-describedby')}"]`).text()).toBe('0 parts is nothing.')
  expect(row.findAll('.n').map((cell) => cell.text())).toEqual(['…', '…'])
})

it('says a grind only where the name does not', () => {
  const grind = (name: string, word: string) => ({ name, grind: word }) as Grind
  expect(grindName(grind('Black pepper', 'cracked'))).toBe('Black pepper, cracked')
  expect(grindName(grind('Honey', 'liquid'))).toBe('Honey')
  expect(grindWord(grind('Flake sea salt', 'flake'))).toBe('')
  expect(grindName(grind('Dried garlic', 'powder'))).toBe('Dried garlic, powder')
})

it('says a strip in words, too', () => {
  const of = { key: 'a', colour: '#aaaaaa', grain_mm: 0.5, family: 'salt' }
  const bands = [
    { of, name: 'Table salt', share: 0.72 },
    { of: { ...of, key: 'b' }, name: 'Black pepper', share: 0.28 },
  ]
  const strip = mount(GrainStrip, { props: { bands, labelled: true } })
  expect(strip.find('[role=img]').attributes('aria-label')).toBe('By mass: 72 % Table salt, 28 % Black pepper')
  expect(
    strip.findAll<HTMLElement>('.label').map((label) => Math.round(parseFloat(label.element.style.width))),
  ).toEqual([72, 28])
})

it('reads a blend in one big answer with its range, or says that there is none yet', () => {
  const whole = {
    lines: [],
    batch: figure(60, 'g'),
    volume: figure(114, 'ml'),
    salt: figure(26.4, '%', 23.7, 29),
    sugar: figure(90, '%'),
    acid: figure(0, '%'),
    allergens: [],
    cautions: [],
  }
  const reads = mount(BlendReads, { props: { reading: whole, kind: 'dry rub' }, global })
  expect(reads.text()).toContain('26.4 % salt')
  expect(reads.text()).toContain('between 23.7 % and 29.0 %')
  // a scale never runs over its end
  expect(reads.find<HTMLElement>('.bar i').element.style.width).toBe('100%')
  expect(mount(BlendReads, { props: { reading: null, kind: 'dry rub' }, global }).text()).toContain('No ratio yet')
  const batch = mount(BatchRow, { props: { modelValue: '60 g', reading: whole }, global })
  expect(batch.text()).toContain('60.0 g')
  expect(batch.text()).toContain('114 ml')
})
