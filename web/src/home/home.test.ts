import { VueQueryPlugin } from '@tanstack/vue-query'
import { mount } from '@vue/test-utils'
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import type { Schemas } from '../api/client'
import FairTest from './FairTest.vue'
import NextBar from './NextBar.vue'
import { timesOf } from './planned'
import StepList from './StepList.vue'
import { sure } from '../kit/sure'

const stubs = {
  VIcon: true,
  'v-btn': { template: '<button><slot /></button>' },
  RouterLink: { template: '<a><slot /></a>' },
  Why: { props: ['figure', 'of'], template: '<span class="why" :title="of"><slot /></span>' },
}
const global = { stubs, plugins: [VueQueryPlugin] }
const figure = { value: 3600, unit: 's', low: null, high: null, error: '', steps: [] }
const step = (kind: string, begins_at: string, lasts_s: number, done_at: string | null = null) => ({
  id: kind,
  kind,
  layer: kind === 'coat' ? 0 : null,
  begins_at,
  before: figure,
  lasts_s,
  done_at,
  settable: kind === 'on',
  mixes: kind === 'mix' ? [{ name: 'Weir House lamb rub', amount: 36.8, unit: 'g', aside_g: 0, letters: ['A'] }] : [],
})
const boil = {
  id: 'boil-first',
  level: 'caution',
  sentence: 'This bath has held raw meat.',
  action: 'Boil it.',
  source: '',
}
const reading = {
  cautions: [
    { ...boil, layer: 0 },
    { ...boil, id: 'allergens', sentence: 'Holds milk.', layer: null },
  ],
  layers: [
    {
      kind: 'rub',
      dose: { ...figure, value: 36.8, unit: 'g' },
      spoons: { text: '¼ cup + 2 tsp', volume: figure },
    },
  ],
}
const piece = {
  typed: { letter: 'A', name: 'Rubbed', tasted: true, layers: [{ kind: 'rub' }] },
  marks: [{ blend_name: 'Weir House lamb rub' }],
  steps: [
    step('mix', '2027-06-12T10:15:00Z', 900, '2027-06-10T09:00:00Z'),
    step('coat', '2027-06-12T11:00:00Z', 7200),
    step('on', '2027-06-12T13:00:00Z', 18_000),
    step('plate', '2027-06-12T18:30:00Z', 0),
  ],
  reading,
  problems: [],
} as unknown as Schemas['BoardPieceOut']

beforeEach(() => {
  vi.useFakeTimers({ toFake: ['Date'] })
  vi.setSystemTime('2027-06-12T08:00:00Z')
})
afterEach(() => vi.useRealTimers())

it('ticks steps, and takes a tick back', async () => {
  const list = mount(StepList, { props: { piece, cookId: 'c', nextStep: 'coat', times: null }, global })
  const boxes = list.findAll('[role=checkbox]')
  expect(boxes.map((box) => box.attributes('aria-checked'))).toEqual(['true', 'false', 'false', 'false'])
  expect(sure(boxes[1]).attributes('aria-label')).toBe('Coat, piece A')
  expect(list.findAll('li.next')).toHaveLength(1)
  await sure(boxes[0]).trigger('click')
  await sure(boxes[1]).trigger('click')
  expect(list.emitted('tick')).toEqual([
    ['mix', false],
    ['coat', true],
  ])
})

it('lets the times on the fire and of the rest be typed, and no others', async () => {
  const list = mount(StepList, { props: { piece, cookId: 'c', times: timesOf([]) }, global })
  const changes = list.findAll('button').filter((button) => button.text() === 'change')
  expect(changes).toHaveLength(1)
  await sure(changes[0]).trigger('click')
  await vi.dynamicImportSettled()
  const input = list.find('input')
  expect((input.element as HTMLInputElement).value).toBe('5 h')
  await input.setValue('6 h')
  await input.trigger('keydown', { key: 'Enter' })
  expect(list.emitted('length')).toEqual([['on', '6 h']])
  expect(list.find('input').exists()).toBe(false)
})

it('leaves a time as it was when the typing is called off', async () => {
  const list = mount(StepList, { props: { piece, cookId: 'c', times: timesOf([]) }, global })
  await sure(list.findAll('button').find((button) => button.text() === 'change')).trigger('click')
  await vi.dynamicImportSettled()
  await list.find('input').setValue('9 h')
  await list.find('input').trigger('keydown', { key: 'Escape' })
  expect(list.emitted('length')).toBeUndefined()
})

it('leads whoever plates to the one look, and nobody to a plate that is not tasted', () => {
  const linked = (tasted: boolean) =>
    mount(StepList, {
      props: { piece: { ...piece, typed: { ...piece.typed, tasted } }, cookId: 'c', times: timesOf([]) },
      global,
    }).text()
  expect(linked(true)).toContain('its number, for whoever plates')
  expect(linked(true)).not.toMatch(/under \d{3}/)
  expect(linked(false)).not.toContain('its number')
})

it('says at a step what has to be done there, and nothing else', () => {
  const list = mount(StepList, { props: { piece, cookId: 'c', times: timesOf([]) }, global })
  expect(list.findAll('li[data-rule]').map((found) => found.attributes('data-rule'))).toEqual(['boil-first'])
})

it('says the next thing, and that it is late when it is', async () => {
  const next = { letter: 'A', step_id: 'coat', kind: 'coat', begins_at: '2027-06-12T11:00:00Z' }
  const usual = { board: next, planned: undefined, waits: false, whose: '', pieces: [piece] }
  const bar = mount(NextBar, { props: usual, global })
  expect(bar.text()).toContain('Next, Sat')
  expect(bar.text()).toContain('Coat, A. 37 g, hold 2 h')
  await bar.find('button').trigger('click')
  expect(bar.emitted('done')).toEqual([['coat']])
  const missed = { ...usual, board: { ...next, begins_at: '2027-06-12T06:00:00Z' } }
  expect(mount(NextBar, { props: missed, global }).text()).toContain('Now, was due')
  // as long as its day is being planned no time is told
  expect(mount(NextBar, { props: { ...usual, waits: true }, global }).text()).toMatch(/^Next *Coat/)
})

it('tells until when a piece with phases is on the fire, and lets nobody change that here', () => {
  const on = dayStep('to.0', 'Put it on', '2027-06-12T10:05:00Z', 'on')
  const times = timesOf([{ ...on, ends_at: '2027-06-12T16:30:00Z' }])
  const phased = { ...piece, steps: piece.steps.map((one) => ({ ...one, settable: false })) }
  const list = mount(StepList, { props: { piece: phased, cookId: 'c', times }, global })
  expect(list.text()).toMatch(/On the fire *Sat \d\d:05, until \d\d:30/)
  expect(list.text()).not.toContain('change')
})

const dayStep = (key: string, says: string, begins_at: string, step = '', layer: number | null = null) => ({
  letter: 'A', key, says, begins_at, ends_at: begins_at, done: false, step, layer,
}) // prettier-ignore

it('goes by the day where that is planned, with what only the day knows', async () => {
  const coat = dayStep('coat.0', 'Coat with Weir House lamb rub', '2027-06-12T10:40:00Z', 'coat', 0)
  const times = timesOf([coat, dayStep('coat.1', 'again', '2027-06-12T12:00:00Z', 'coat', 1)])
  expect(piece.steps.map((one) => times('A', one)?.begins_at)).toEqual([
    undefined,
    '2027-06-12T10:40:00Z',
    undefined,
    undefined,
  ])
  expect(times('B', sure(piece.steps[1]))).toBeUndefined()
  const list = mount(StepList, { props: { piece, cookId: 'c', times }, global })
  expect(list.findAll('.why').map((one) => one.attributes('title'))).toEqual([
    'On the fire, before serving',
    'Plate, before serving',
  ])
  const waiting = mount(StepList, { props: { piece, cookId: 'c', times: null }, global })
  expect(waiting.findAll('.why')).toHaveLength(0)
  const of = { board: null, waits: true, whose: '', pieces: [piece] }
  const bar = mount(NextBar, { props: { ...of, planned: coat }, global })
  expect(bar.text()).toContain('Coat, A. 37 g')
  const light = mount(NextBar, {
    props: { ...of, planned: dayStep('light.kettle', 'Light the kettle', '2027-06-12T09:00:00Z') },
    global,
  })
  expect(light.text()).toContain('Light the kettle.')
  await light.find('button').trigger('click')
  expect(light.emitted('done')).toEqual([[null]])
})

it('offers to even out only what a tap can even out', async () => {
  const fair = {
    same: ['rest'],
    differs: [
      { what: 'salt', sentence: 'A carries more salt.', can_even: true, size: 1, about: '' },
      { what: 'weight', sentence: 'B weighs more.', can_even: false, size: 1, about: '' },
    ],
    unknown: ['fire and wood'],
    changes: [{ what: 'layer', of: 'rub or bath', letter: '', sentence: 'A has rub, B bath.' }],
    clean: '',
    two_by_two: [],
    can_clean: false,
    looks: '',
  }
  expect(mount(FairTest, { props: { fair }, global }).findAll('button')).toHaveLength(0)
  const test = mount(FairTest, { props: { fair, taps: true }, global })
  expect(test.findAll('button')).toHaveLength(1)
  await test.find('button').trigger('click')
  expect(test.emitted('even')).toEqual([['salt']])
  expect(mount(FairTest, { props: { fair: { ...fair, differs: [] } }, global }).text()).toContain('Fair so far.')
  const alike = mount(FairTest, { props: { fair: { ...fair, differs: [], changes: [] } }, global }).text()
  expect(alike).toContain('Seasoned alike so far')
  expect(alike).not.toContain('Fair so far.')
})

it('names a trial that changes two things, with the taps that make it clean', async () => {
  const change = (of: string, sentence: string) => ({ what: 'layer', of, letter: 'A', sentence })
  const fair = {
    same: [],
    differs: [],
    unknown: [],
    changes: [change('rub or bath', 'A has rub, B bath.'), change('glaze', 'Only A has glaze.')],
    clean: 'To ask one thing: put glaze on B as well, or leave it off A.',
    two_by_two: ['Rubbed without glaze', 'Rubbed with glaze', 'Bathed without glaze', 'Bathed with glaze'],
    can_clean: true,
    looks: '',
  }
  const test = mount(FairTest, { props: { fair, taps: true, crosses: true }, global })
  expect(test.text()).toContain('Changes two things.')
  expect(test.text()).not.toContain('Fair so far')
  for (const button of test.findAll('button')) await button.trigger('click')
  expect(test.emitted('even')).toEqual([['layers on both'], ['layers off']])
  expect(test.emitted('cross')).toHaveLength(1)
})
