import { VueQueryPlugin } from '@tanstack/vue-query'
import { mount } from '@vue/test-utils'
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { nextTick } from 'vue'
import { api } from '../api/client'
import { asDocument, blankCard, placesOf, stepsOf, tapped, toggledTie, type Filled } from './card'
import { cardsOut, handIn } from './cardsOut'
import FaceRow from './FaceRow.vue'
import { asTyped, atCells, columnsOf } from './paper'
import PickPlate from './PickPlate.vue'
import RightRow from './RightRow.vue'
import { askedAs, endsOf, isRight } from './scales'
import ServingsPlate from './ServingsPlate.vue'
import { useCard } from './useCard'
import { typed } from './useDesigning'
import type { Design, Table } from './useTable'
import WordPick from './WordPick.vue'

const kept = new Map<string, unknown>()
vi.mock('idb-keyval', () => ({
  get: (key: string) => Promise.resolve(kept.get(key)),
  set: (key: string, value: unknown) => Promise.resolve(void kept.set(key, value)),
}))
beforeEach(() => kept.clear())
afterEach(() => {
  // nothing is left that another file's server would be sent
  cardsOut.value = []
  vi.restoreAllMocks()
})

const serving = (taster: string, more = {}) => ({
  taster_id: taster, taster, number: 0, order: ['417', '305', '862'], state: 'waits', short: false, says: '',
  card_id: null, ...more,
}) // prettier-ignore
const table = (more: object = {}) =>
  ({
    trial_id: 't', kind: 'ranking', asks: 'Put them in order, the best first.', codes: ['305', '417', '862'],
    scales: [{ name: 'overall', low: 1, high: 9 }, { name: 'salt', low: 1, high: 5 }], words: ['smoke'], guess: '',
    sip: 'water', servings: [], cards: [], seen_by: [], balance: { says: '', even: true }, revealed: null, ...more,
  }) as unknown as Table // prettier-ignore

it('puts plates in order by taps, out again with all that came after, and alike where they are', () => {
  expect(tapped(tapped([], '417'), '305')).toEqual(['417', '305'])
  expect(tapped(['417', '305', '862'], '305')).toEqual(['417'])
  expect(placesOf(['417', '305', '862'], [])).toEqual({ 417: 1, 305: 2, 862: 3 })
  expect(placesOf(['417', '305', '862'], ['305'])).toEqual({ 417: 1, 305: 1, 862: 3 })
  expect(placesOf(['417', '305', '862'], ['305', '862'])).toEqual({ 417: 1, 305: 1, 862: 1 })
  // the first has nobody before it
  expect(placesOf(['417'], ['417'])).toEqual({ 417: 1 })
  expect(toggledTie(toggledTie([], '417'), '417')).toEqual([])
})

it('hands in what was said, and nothing that was not', () => {
  const card = { ...blankCard(), taster: ' Kittiwake ', served: ['417', '305'], order: ['305', '417'], prefers: 'none' }
  card.scores['417|salt'] = 3
  Object.assign(card.words, { 417: ['smoke'], 305: [] })
  expect(asDocument(card)).toEqual({
    taster: 'Kittiwake', served: ['417', '305'], prefers: null, odd: null, guess: null, short: false, left: false,
    scores: [{ code: '417', scale: 'salt', value: 3 }, { code: '305', scale: 'rank', value: 1 }, { code: '417', scale: 'rank', value: 2 }],
    words: [{ code: '417', words: ['smoke'] }],
  }) // prettier-ignore
  expect(asDocument({ ...card, prefers: '305' }, true)).toMatchObject({ prefers: '305', left: true })
})

it('asks who it is, what decides, each plate, and a guess where looks tell', () => {
  const card = { ...blankCard(), served: ['417', '305'] }
  expect(stepsOf(table(), card)).toEqual(['who', 'decides', 'plate 417', 'plate 305'])
  expect(stepsOf(table({ kind: 'scores', guess: 'Which?' }), card)).toEqual(['who', 'plate 417', 'plate 305', 'guess'])
  expect(stepsOf(table(), { ...card, short: true })).toEqual(['who', 'faces'])
})

it('sends a paper card as it was typed, and says what is refused at its own cells', () => {
  const given = serving('Otter') as never
  expect(columnsOf(table()).map((one) => one.title)).toEqual(['Place', 'Overall', 'Salt'])
  expect(columnsOf(table({ kind: 'scores', scales: [] })).map((one) => one.key)).toEqual(['overall'])
  const good = asTyped(table(), given, { '417|rank': '2', '305|rank': '1', '862|rank': '3', '417|salt': '' })
  expect(good.card.scores).toContainEqual({ code: '305', scale: 'rank', value: 1 })
  expect(good.places).toEqual(['417|rank', '305|rank', '862|rank'])
  // what it refuses of them stands at the cells they were typed in
  const bad = asTyped(table(), given, { '417|rank': '7', '305|salt': '6', '862|overall': 'x' })
  const said = {
    'scores.0.value': 'rank goes from 1 to 3.',
    'scores.2.value': 'too small',
    taster: 'who?',
    odd: 'pick',
  }
  expect(atCells(said, bad.places)).toEqual({ '417|rank': 'rank goes from 1 to 3.', '862|overall': 'too small', taster: 'who?', pick: 'pick' }) // prettier-ignore
  const paired = table({ kind: 'preference' })
  expect(asTyped(paired, given, { pick: '0' }).card.prefers).toBeNull()
  expect(asTyped(paired, given, { pick: ' 305 ' }).card.prefers).toBe('305')
  expect(asTyped(table({ kind: 'triangle' }), given, { pick: '862' }).card.odd).toBe('862')
})

it('stands just right in the middle, and faces from the best', async () => {
  const right = mount(RightRow, { props: { scale: 'smoke', code: '417', modelValue: undefined } })
  const words = right.findAll('label').map((one) => one.text())
  expect(words[2]).toBe('just right')
  await right.findAll('input')[3]?.trigger('change')
  expect(right.emitted('update:modelValue')).toEqual([[4]])
  const faces = mount(FaceRow, { props: { code: '417', modelValue: undefined } })
  await faces.findAll('input')[0]?.trigger('change')
  expect(faces.emitted('update:modelValue')).toEqual([[3]])
  expect([isRight('salt'), isRight('crust')]).toEqual([true, false])
  expect([endsOf('salt'), endsOf('crust'), endsOf('meat flavour')].map(([low]) => low)).toEqual(['too little', 'dislike it', 'buried']) // prettier-ignore
  expect([askedAs('sour'), askedAs('meat flavour')]).toEqual(['Sourness', 'Meat flavour'])
})

it('takes ready words and own ones, each once', async () => {
  const pick = mount(WordPick, { props: { words: ['smoke', 'sweet'], code: '417', modelValue: ['smoke', 'tar'] } })
  expect(pick.findAll('button').map((one) => one.text())).toEqual(['smoke', 'sweet', 'tar'])
  await pick.findAll('button')[0]?.trigger('click')
  await pick.find('input').setValue(' canal ')
  await pick.find('input').trigger('keydown', { key: 'Enter' })
  expect(pick.emitted('update:modelValue')).toEqual([[['tar']], [['tar', 'canal']]])
})

it('shows the place of each plate, and offers alike to all but the first', async () => {
  const order = ['305', '417']
  const pick = mount(PickPlate, {
    props: { codes: ['417', '305', '862'], asks: 'Put them in order.', order, places: { 305: 1, 417: 2 } },
  })
  expect(pick.findAll('.one').map((one) => one.attributes('aria-label'))).toEqual(['417, 2nd', '305, best', '862'])
  const alike = pick.findAll('.link')
  expect(alike.map((one) => one.text())).toEqual(['as good as the one before'])
  await alike[0]?.trigger('click')
  expect(pick.emitted('alike')).toEqual([['417']])
})

it('shows a row for everybody: who is in, who is next, who must not be served', () => {
  const rows = [
    serving('Kittiwake', { state: 'in', card_id: 'c' }),
    serving('Heron', { order: [], says: 'Heron does not eat milk, which is in one of these plates.' }),
    serving('Marigold'),
    serving('Otter', { state: 'gone' }),
    serving('Tadpole', { short: true }),
  ]
  const card = { id: 'c', taster: 'Kittiwake', served: ['417', '305', '862'], blind: false, short: false, whole: true, prefers: null } // prettier-ignore
  const shown = mount(ServingsPlate, {
    props: { table: table({ servings: rows, cards: [card], balance: { says: 'Out of balance', even: false } }) },
    global: { plugins: [VueQueryPlugin], stubs: { RowMenu: true, VBtn: true } },
  })
  const said = shown.findAll('li').map((row) => row.find('.who').text())
  expect(said).toEqual([
    'Kittiwake, not blindcard in', 'Heronwaits', 'Marigoldtastes next', 'Otterleft without a card', 'Tadpolea child’s card, waits',
  ]) // prettier-ignore
  expect(shown.findAll('li')[1]?.text()).toContain('does not eat milk')
  expect(shown.findAll('li')[1]?.find('.order').exists()).toBe(false)
  expect(shown.find('.uneven').text()).toBe('Out of balance')
})

it('keeps a card while no server answers', async () => {
  vi.spyOn(api, 'POST').mockRejectedValueOnce(new TypeError('lost'))
  const card = asDocument({ ...blankCard(), taster: 'Kittiwake' })
  expect(await handIn('t', card)).toBeNull()
  expect(cardsOut.value.map((one) => one.card.taster)).toEqual(['Kittiwake'])
  expect(kept.get('ravska:cards')).toHaveLength(1)
  vi.spyOn(api, 'POST').mockResolvedValueOnce({ data: table(), response: new Response() })
  expect(await handIn('t', card)).toMatchObject({ trial_id: 't' })
})

it('takes a design as it is typed, with its sides only where it has some', () => {
  const pieces = ['A', 'B', 'C'].map((letter, at) => ({ letter, tasted: at < 2, row: null, column: null }))
  const out = { question: 'Which?', kind: 'scores', pieces, cards: 6, twin: true, scales: [], words: [], guess: null, sides: [], parts: [] } // prettier-ignore
  expect(typed(out as unknown as Design)).toMatchObject({ letters: ['A', 'B'], cards: '6', twin: true, crossed: [] })
  const four = ['A', 'B', 'C', 'D'].map((letter, at) => ({ letter, tasted: true, row: at >> 1, column: at % 2 }))
  const crossed = typed({ ...out, pieces: four, sides: ['a', 'b', 'c', 'd'] } as unknown as Design).crossed
  expect(crossed?.at(-1)).toEqual({ letter: 'D', row: 1, column: 1 })
})

it('keeps each taster’s card by itself, so that a phone handed on takes nobody’s answers along', async () => {
  const rows = [serving('Kittiwake'), serving('Marigold')]
  const at = mount(
    {
      template: '<div />',
      setup: () =>
        useCard(
          () => table({ servings: rows }),
          '',
          () => {},
        ),
    },
    { global: { plugins: [VueQueryPlugin] } },
  ).vm as unknown as { card: Filled; at: number; taps: string[]; begin: () => Promise<void>; undo: () => void }
  at.card.taster = 'kittiwake'
  await at.begin()
  expect([at.card.taster, at.card.served, at.at]).toEqual(['Kittiwake', ['417', '305', '862'], 1])
  at.card.scores['417|salt'] = 3
  await nextTick()
  at.card.scores['417|salt'] = 4
  await nextTick()
  at.undo()
  await nextTick()
  expect(at.card.scores).toEqual({ '417|salt': 3 })
  at.at = 0
  at.card.taster = 'Marigold'
  await at.begin()
  expect(at.card.scores).toEqual({})
  at.at = 0
  at.card.taster = 'Kittiwake'
  await at.begin()
  expect(at.card.scores).toEqual({ '417|salt': 3 })
  // of other plates nothing is taken up
  rows.splice(0, 1, serving('Kittiwake', { order: ['111', '305', '862'] }))
  at.at = 0
  await at.begin()
  expect([at.card.scores, at.card.served[0]]).toEqual([{}, '111'])
})
