import { mount } from '@vue/test-utils'
import { expect, it } from 'vitest'
import RightRow from '../table/RightRow.vue'
import ScoreRow from '../table/ScoreRow.vue'
import PreferenceCount from '../verdict/PreferenceCount.vue'
import { cutWords, type Cut } from '../api/catalogue'
import { rankOf } from './rank'
import CautionList from './CautionList.vue'
import Choice from './Choice.vue'
import ConflictBar from '../edit/ConflictBar.vue'
import Field from './Field.vue'
import SaveMark from '../edit/SaveMark.vue'
import TitleInput from './TitleInput.vue'
import { sure } from './sure'

const caution = (level: 'stop' | 'caution' | 'note', sentence: string) => ({
  id: sentence,
  level,
  sentence,
  action: 'Do this.',
  source: 'x',
})
const plain = { global: { stubs: { 'v-icon': true, VIcon: true, Why: { template: '<span><slot /></span>' } } } }

it('shows stops apart from other cautions, with a word for each level', () => {
  const cautions = [caution('stop', 'Too warm.'), caution('caution', 'Too long.'), caution('note', 'Holds milk.')]
  const all = mount(CautionList, { props: { cautions }, ...plain })
  expect(all.findAll('li').map((li) => li.find('b').text())).toEqual(['Stop', 'Caution', 'Note'])
  const stops = mount(CautionList, { props: { cautions, only: 'stops' }, ...plain })
  expect(stops.text()).toContain('Too warm.')
  expect(stops.text()).not.toContain('milk')
  const others = mount(CautionList, { props: { cautions, only: 'others' }, ...plain })
  expect(others.findAll('li')).toHaveLength(2)
  expect(
    mount(CautionList, { props: { cautions: [], only: 'stops' }, ...plain })
      .find('ul')
      .exists(),
  ).toBe(false)
})

it('ties the sentence of a field to its input', async () => {
  const field = mount(Field, { props: { modelValue: '2', label: 'Batch', error: 'Write a weight.' } })
  const input = field.find('input')
  expect(input.attributes('aria-invalid')).toBe('true')
  expect(field.find(`[id="${input.attributes('aria-describedby')}"]`).text()).toBe('Write a weight.')
  expect(field.find('label').attributes('for')).toBe(input.attributes('id'))
  await input.setValue('150 g')
  expect(field.emitted('update:modelValue')).toEqual([['150 g']])
  await field.setProps({ error: undefined })
  expect(input.attributes('aria-describedby')).toBeUndefined()
})

it('offers a few choices as radios with one name', async () => {
  const options = ['bag', 'bowl'].map((value) => ({ value, text: value }))
  const choice = mount(Choice, { props: { modelValue: 'bag', label: 'Vessel', options } })
  const radios = choice.findAll('input')
  expect(new Set(radios.map((radio) => radio.attributes('name'))).size).toBe(1)
  await sure(radios[1]).setValue(true)
  expect(choice.emitted('update:modelValue')).toEqual([['bowl']])
})

it('says the state of saving in words', () => {
  const words = (['saved', 'waiting', 'offline', 'conflict', 'refused'] as const).map((state) =>
    mount(SaveMark, { props: { state } }).text(),
  )
  expect(words).toEqual([
    'Saved',
    'Saving …',
    'Server lost: kept here, trying again',
    'Changed elsewhere',
    'Not saved yet',
  ])
})

it('offers both versions of a conflict', async () => {
  const rows = [{ field: 'batch', mine: '80 g', theirs: '60 g' }]
  const stubs = { 'v-btn': { template: '<button><slot /></button>' } }
  const bar = mount(ConflictBar, { props: { what: 'blend', differences: rows }, global: { stubs } })
  expect(bar.find('tbody').text()).toBe('batch80 g60 g')
  const [mine, theirs] = bar.findAll('button')
  await sure(mine).trigger('click')
  await sure(theirs).trigger('click')
  expect(Object.keys(bar.emitted())).toEqual(expect.arrayContaining(['mine', 'theirs']))
})

it('asks for a score with as many targets as the scale has', async () => {
  const nine = mount(ScoreRow, {
    props: { scale: { name: 'overall', low: 1, high: 9 }, code: '418', modelValue: undefined },
  })
  expect(nine.findAll('input')).toHaveLength(9)
  expect(nine.find('input[value="7"]').attributes('aria-label')).toBe('overall of 418: 7')
  await nine.find('input[value="7"]').trigger('change')
  expect(nine.emitted('update:modelValue')).toEqual([[7]])
  const salt = mount(RightRow, { props: { scale: 'salt', code: '418', modelValue: 3 } })
  expect(salt.findAll('input')).toHaveLength(5)
  expect(salt.find('label.on').text()).toBe('just right')
  expect(salt.find('label.right').text()).toBe('just right')
})

it('shows who prefers which side, by name', () => {
  const verdict = {
    sides: [
      { codes: ['149'], letter: null, name: null, votes: 2, children: 0, right: [] },
      { codes: ['619'], letter: null, name: null, votes: 0, children: 0, right: [] },
    ],
    kind: 'preference',
    revealed: false,
    cards: [
      { taster: 'Kittiwake', blind: true, overall: [8, 6], ranks: [], prefers: 0, best: [0], right: null },
      { taster: 'Marigold', blind: false, overall: [8, 6], ranks: [], prefers: 0, best: [0], right: null },
      { taster: 'Tamarisk', blind: true, overall: [7, 7], ranks: [], prefers: null, best: [], right: null },
    ],
  }
  const count = mount(PreferenceCount, { props: { verdict: verdict as never } })
  const [first, second] = count.findAll('.side')
  expect(
    sure(first)
      .findAll('.pennant')
      .map((one) => one.text()),
  ).toEqual(['Kittiwake', 'Marigold, not blind'])
  expect(sure(second).text()).toContain('nobody yet')
  expect(sure(second).text()).not.toContain('Marinated')
})

it('names a title and its error', () => {
  const title = mount(TitleInput, { props: { modelValue: 'Rub', label: 'Name of the blend', error: 'Write a name.' } })
  expect(title.find('label').text()).toBe('Name of the blend')
  expect(title.find('[role=alert]').text()).toBe('Write a name.')
})

it('finds a cut by its words in any order, by its animal and by its other names', () => {
  const leg = { name: 'Leg of goat', animal: 'goat', other_names: ['kid leg', 'chevon leg'] } as Cut
  const found = ['goat leg', 'Leg of', 'kid ', '', 'CHEVON'].map((typed) => rankOf(cutWords(leg), typed) >= 0)
  expect(found).toEqual([true, true, true, true, true])
  expect(rankOf(cutWords(leg), 'goat rack')).toBe(-1)
})
