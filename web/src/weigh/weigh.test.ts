import { QueryClient, VueQueryPlugin } from '@tanstack/vue-query'
import { mount, type MountingOptions } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import BringLine from '../blend/BringLine.vue'
import RescuePlate from './RescuePlate.vue'
import WeighDial from './WeighDial.vue'
import WeighList from './WeighList.vue'
import { doubt } from '../kit/measures'
import { sure } from '../kit/sure'

const queryClient = new QueryClient()
queryClient.setQueryData(['catalogue'], { grinds: [] })

const figure = (value: number, low: number | null = null, high: number | null = null) => ({
  value,
  unit: '%',
  error: '',
  steps: [],
  low,
  high,
})
const line = {
  id: 'a',
  name: 'star anise, ground',
  bands: [],
  wanted_g: 6.4,
  poured_g: 1,
  low_g: 6.27,
  high_g: 6.53,
  stand: 'under' as const,
  done: false,
  added: false,
  spoons: '1 tbsp',
}
const scale = {
  state: 'live' as const,
  scale: 'kitchen',
  kind: 'simulated',
  grams: 3.9,
  settled: true,
  overload: false,
  resolution_g: 0.1,
  capacity_g: 5000,
  tares: 0,
  silent_s: 0.1,
}
const global: MountingOptions<object>['global'] = { plugins: [[VueQueryPlugin, { queryClient }]] }
const dial = (over: object = {}) =>
  mount(WeighDial, {
    global,
    props: { line, reading: 3.9, scale, stands: 'under', spooning: false, digits: 1, ...over },
  })

describe('the dial', () => {
  it('adds what the scale shows to what lies in the bowl already', () => {
    expect(dial().text()).toContain('4.9')
    expect(dial().text()).toContain('1.5 g to go')
  })
  it('says overload, silence and a missing scale in words, and shows no stale weight', () => {
    const heavy = dial({ reading: null, scale: { ...scale, overload: true, grams: null } })
    expect(heavy.text()).toContain('Too heavy for this scale')
    expect(heavy.find('.big').text()).toBe('– –')
    const lost = dial({ reading: null, scale: { ...scale, state: 'lost', silent_s: 7.2, settled: false } })
    expect(lost.text()).toContain('silent for 7 s')
    const without = dial({ reading: null, scale: { ...scale, state: 'none' } })
    expect(without.text()).toContain('No scale is connected')
    // spoons first, and what they stand for; no bar that nothing moves
    expect(without.find('.big').text()).toBe(line.poured_g ? 'the rest' : line.spoons)
    expect(without.find('.bar').exists()).toBe(false)
    const new_ = { ...line, poured_g: 0 }
    expect(
      dial({ line: new_, reading: null, scale: { ...scale, state: 'none' } })
        .find('.big')
        .text(),
    ).toBe(line.spoons)
  })
  it('says how much is too much, and how much to spoon out', () => {
    expect(dial({ reading: 8.4, stands: 'over' }).text()).toContain('3.0 g too much')
    const line_ = { ...line, poured_g: 9.4 }
    expect(dial({ line: line_, reading: -1, stands: 'over', spooning: true }).text()).toContain('Take 2.0 g of it out')
  })
})

it('offers the three ways out and says which was taken', async () => {
  const way = (id: string) => ({
    id, says: `${id} it`, adds: [], takes_g: 0, wanted_g: [90], batch_g: 90, salt_before: 47.5, salt_after: 45.8, figure: figure(45.8),
  }) // prettier-ignore
  const plate = mount(RescuePlate, {
    global,
    props: { name: 'star anise', rescues: ['scale up', 'accept', 'spoon out'].map(way) },
  })
  expect(plate.text()).toContain('47.5 % → 45.8 %')
  for (const button of plate.findAll('li > button')) await button.trigger('click')
  for (const name of ['scaleUp', 'accept', 'spoonOut']) expect(plate.emitted(name)).toHaveLength(1)
})

it('lists every line with what lies in the bowl of it, short ones and added ones marked', () => {
  const lines = [
    { ...line, id: 'a', done: true, poured_g: 6.4, stand: 'met' as const },
    { ...line, id: 'b', name: 'cumin', done: true, poured_g: 2 },
    { ...line, id: 'c', name: 'paprika', done: true, added: true, stand: 'met' as const },
  ]
  const batch = { lines, current: null, poured_g: 14.8 } as never
  const text = mount(WeighList, { global, props: { batch, digits: 1 } }).text()
  expect(text).toContain('left short')
  expect(text).toContain('added after tasting')
  expect(text).toContain('14.8 g')
})

describe('a pasted line', () => {
  const item = {
    text: '1 tbsp papirka',
    status: 'what' as const,
    name: 'papirka',
    grind: '',
    blend: null,
    says: '14.8 ml',
    amount: '1 tbsp',
    error: 0.1,
    note: '',
    question: 'I do not know “papirka” for sure.',
    closest: [{ grind: 'paprika/powder', name: 'sweet paprika, powder' }],
    problem: '',
    called: 'papirka',
    unread: [] as [number, number][],
    weighs: '',
    spoons: '',
    swap: '',
    uses: [],
    usual: [] as string[],
  }
  const shown = (over: object = {}) =>
    mount(BringLine, {
      global: { ...global, stubs: { AddLine: true } },
      props: {
        line: { number: 3, text: '1 tbsp papirka', status: 'what', items: [{ ...item, ...over }] },
        errorOf: () => '',
        given: () => undefined,
      },
    })
  it('asks with what comes closest, and takes the answer', async () => {
    const row = shown()
    expect(row.find('.likely').text()).toBe(row.find('.offers button').text())
    await row.find('.offers button').trigger('click')
    expect(row.emitted('answer')).toEqual([[0, { grind: 'paprika/powder', blend: null }]])
  })
  it('marks the words that were not used', () => {
    const marks = shown({ unread: [[7, 14]] }).findAll('mark')
    expect(marks.map((mark) => mark.text())).toEqual(['papirka'])
  })
  it('offers what is usually in a pack, to take with one tap', async () => {
    const row = shown({ status: 'how much', usual: ['355 ml', '500 ml'], closest: [] })
    // one size is as likely as another
    expect(row.find('.likely').exists()).toBe(false)
    await sure(row.findAll('.offers button')[1]).trigger('click')
    expect(row.emitted('answer')).toEqual([[0, { amount: '500 ml' }]])
  })
  it('shows grams and the spoon of what is ticked, and what it may be swapped for', () => {
    const text = shown({ status: 'understood', question: '', weighs: '28.4 g', spoons: '2 tbsp', swap: 'ghee' }).text()
    expect(text).toContain('28.4 g · 2 tbsp')
    expect(text).toContain('or ghee')
  })
  it('offers to read a name so from now on, once someone has said what it is', () => {
    const said = { line: 0, item: 0, grind: 'paprika/powder', blend: null, amount: '', leave_out: false }
    const props = {
      line: {
        number: 1,
        text: '1 tbsp papirka',
        status: 'understood' as const,
        items: [{ ...item, status: 'understood' as const, grind: 'paprika/powder' }],
      },
      errorOf: () => '',
      given: () => said,
    }
    const row = mount(BringLine, { global: { ...global, stubs: { AddLine: true } }, props })
    expect(row.find('.always').text()).toContain('Always read “papirka” so')
    expect(shown({ grind: 'paprika/powder' }).find('.always').exists()).toBe(false)
  })
  it('is only left out when someone says so, and can be taken after all', async () => {
    const row = shown()
    await sure(row.findAll('.acts button')[1]).trigger('click')
    expect(row.emitted('answer')).toEqual([[0, { leave_out: true }]])
    const out = shown({ status: 'left out' })
    expect(out.text()).toContain('Take it after all')
    expect(out.find('.ask').exists()).toBe(false)
  })
})

it('says how wide a figure is only where that matters', () => {
  expect(doubt(figure(50, 49, 51))).toBe('')
  expect(doubt(figure(50, 36, 71))).toBe('36 to 71 %')
  expect(doubt(figure(4, 3, 5))).toBe('3.0 to 5.0 %')
  expect(doubt(figure(50))).toBe('')
})
