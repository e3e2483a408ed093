import { VueQueryPlugin } from '@tanstack/vue-query'
import { mount } from '@vue/test-utils'
import { expect, it } from 'vitest'
import { grindName, grindWord, type Grind } from '../api/catalogue'
import GrainStrip from '../draw/GrainStrip.vue'
import { bandsOf, bandsOfLines } from './bands'
import BatchRow from './BatchRow.vue'
import BlendFindings from './BlendFindings.vue'
import BlendReads from './BlendReads.vue'
import BlendStrip from './BlendStrip.vue'
import LineRow from './LineRow.vue'
import ProposalPlate from './ProposalPlate.vue'
import RatioBar from './RatioBar.vue'
import ScaleRow from './ScaleRow.vue'
import { layOut, type Node } from './tree'
import { newLine, type Reading } from './useBlend'
import { choiceOf } from '../tested'
import { sure } from '../kit/sure'

const stubs = {
  VIcon: true,
  VBtn: { template: '<button><slot /></button>' },
  Why: { props: ['figure', 'of'], template: '<span><slot /></span>' },
}
const global = { stubs, plugins: [VueQueryPlugin] }
const figure = (value: number, unit: string, low: number | null = null, high: number | null = null) => ({
  value,
  unit,
  low,
  high,
  error: '',
  steps: [],
})
const lineReading = {
  grind: 'black-pepper/cracked',
  name: 'black pepper, cracked',
  share: figure(19.6, '%'),
  mass: figure(11.76, 'g'),
  volume_ml: 23.2,
  spoons: { text: '1 tbsp + 1¾ tsp', volume_ml: 23, count: 3, error: -0.008, volume: figure(23, 'ml') },
  bands: [{ grind: 'black-pepper/cracked', share: 1 }],
}
const scale = (key: string, value: number, full: number, word = '') => ({
  key,
  label: key.slice(0, 1).toUpperCase() + key.slice(1),
  value,
  unit: key === 'heat' ? 'of 10' : '%',
  full,
  word,
  figure: figure(value, '%'),
})
const row = (change: object = {}) => ({
  props: {
    line: { ...newLine('black-pepper/cracked'), parts: '3' },
    at: 0,
    name: 'Black pepper',
    grind: 'cracked',
    colours: ['#3a332d'],
    reading: lineReading,
    ...change,
  },
  global,
})

it('shows what a line comes to, and passes on what is typed as it is typed', async () => {
  const line = mount(LineRow, row())
  expect(line.text()).toContain('19.6 %')
  expect(line.text()).toContain('11.8 g')
  expect(line.text()).toContain('1 tbsp + 1¾ tsp')
  await line.find('input.parts').setValue('1½')
  expect(line.emitted('parts')).toEqual([['1½']])
  await sure(line.findAll('input[type=radio]')[1]).setValue(true)
  expect(line.emitted('basis')).toEqual([['scale']])
  await line.find('button[aria-label="Remove Black pepper, cracked"]').trigger('click')
  expect(line.emitted('remove')).toHaveLength(1)
})

it('nudges with the arrows, moves with Alt and the arrows, and goes on with Enter', async () => {
  const input = mount(LineRow, row()).find('input.parts')
  const line = mount(LineRow, row())
  const parts = line.find('input.parts')
  await parts.trigger('keydown', { key: 'ArrowUp' })
  await parts.trigger('keydown', { key: 'ArrowDown' })
  await parts.trigger('keydown', { key: 'ArrowDown', altKey: true })
  await parts.trigger('keydown', { key: 'Enter' })
  expect(line.emitted('nudge')).toEqual([[true], [false]])
  expect(line.emitted('move')).toEqual([[1]])
  expect(line.emitted('enter')).toHaveLength(1)
  expect(input.attributes('readonly')).toBeUndefined()
  expect(
    mount(LineRow, row({ isBase: true }))
      .find('input.parts')
      .attributes('readonly'),
  ).toBeDefined()
})

it('locks a line in three steps and says which', async () => {
  for (const [lock, says, next] of [
    ['', 'free', 'share'],
    ['share', 'its share is held', 'ratio'],
    ['ratio', 'its ratio', ''],
  ] as const) {
    const line = mount(LineRow, row({ line: { ...newLine('a/b'), lock } }))
    const button = sure(line.findAll('button').find((found) => found.attributes('aria-label')?.startsWith('Lock of')))
    expect(button.attributes('aria-label')).toContain(says)
    await button.trigger('click')
    expect(line.emitted('lock')).toEqual([[next]])
  }
})

it('ties a sentence to the part it is about and keeps what was typed but not taken', () => {
  const line = mount(LineRow, row({ pending: '0', reading: null, error: '0 parts is nothing.' }))
  const input = line.find<HTMLInputElement>('input.parts')
  expect(input.element.value).toBe('0')
  expect(input.attributes('aria-invalid')).toBe('true')
  expect(line.find(`[id="${input.attributes('aria-describedby')}"]`).text()).toBe('0 parts is nothing.')
  expect(line.findAll('.n').map((cell) => cell.text())).toEqual(['…', '…'])
})

it('says a grind only where the name does not', () => {
  const grind = (name: string, word: string) => ({ name, grind: word }) as Grind
  expect(grindName(grind('Black pepper', 'cracked'))).toBe('Black pepper, cracked')
  expect(grindName(grind('Honey', 'liquid'))).toBe('Honey')
  expect(grindWord(grind('Flake sea salt', 'flake'))).toBe('')
  expect(grindName(grind('Dried garlic', 'powder'))).toBe('Dried garlic, powder')
})

const grain = (key: string) =>
  ({ key, name: key, grind: 'liquid', colour: '#aaaaaa', grain_mm: 0.5, family: 'salt' }) as Grind

it('draws a blend inside as joined bands of its own grains', () => {
  const grinds = new Map(['salt', 'pepper', 'honey'].map((key) => [key, grain(key)]))
  const inside = { id: 'x', name: 'Rub', version: 1, deleted: false }
  const reading = {
    lines: [
      { ...lineReading, share: figure(80, '%'), bands: [{ grind: 'honey', share: 1 }] },
      {
        ...lineReading,
        share: figure(20, '%'),
        inside,
        bands: [
          { grind: 'salt', share: 0.75 },
          { grind: 'pepper', share: 0.25 },
        ],
      },
    ],
  } as unknown as Reading
  const [honey, rub] = bandsOfLines(reading, grinds)
  expect(honey?.map((band) => [band.name, band.share, band.joined])).toEqual([['honey', 0.8, false]])
  expect(rub?.map((band) => [band.name, Math.round(band.share * 100), band.joined])).toEqual([
    ['salt', 15, false],
    ['pepper', 5, true],
  ])
  const strip = mount(GrainStrip, { props: { bands: bandsOf(reading, grinds) } })
  expect(strip.attributes('aria-label')).toBe('By mass: 80 % honey, 15 % salt, 5 % pepper')
  expect(bandsOf(null, grinds)).toEqual([])
})

it('moves a border by keys, says where it stands, and leaves locked lines alone', async () => {
  const stretch = (name: string, share: number, locked = false) => ({ name, short: name, share, locked, bands: [] })
  const stretches = [stretch('Salt', 0.5), stretch('Pepper', 0.3), stretch('Cumin', 0.2, true)]
  const strip = mount(BlendStrip, { props: { stretches, ghost: [], ghostOf: '' } })
  const borders = strip.findAll('[role=slider]')
  expect(borders.map((border) => border.attributes('aria-label'))).toEqual(['Border between Salt and Pepper'])
  expect(sure(borders[0]).attributes('aria-valuenow')).toBe('50')
  expect(sure(borders[0]).attributes('aria-valuemax')).toBe('80')
  await sure(borders[0]).trigger('keydown', { key: 'ArrowRight' })
  await sure(borders[0]).trigger('keydown', { key: 'ArrowLeft', shiftKey: true })
  expect(strip.emitted('border')).toEqual([
    [0, 0.51, false],
    [0, 0.45, false],
  ])
})

it('reads a scale with its ghost, and sets targets by typing', async () => {
  const props = {
    scale: scale('heat', 3.1, 10, 'mild'),
    ghost: 4,
    ghostOf: 'Revision 3',
    target: null,
    aiming: false,
    errors: {},
  }
  const read = mount(ScaleRow, { props, global })
  expect(read.text()).toContain('mild')
  expect(read.text()).toContain('was 4.0')
  expect(read.find<HTMLElement>('.dot').element.style.left).toBe('31%')
  expect(read.find<HTMLElement>('.ghost').element.style.left).toBe('40%')
  expect(read.findAll('input')).toHaveLength(0)

  const aimed = mount(ScaleRow, { props: { ...props, aiming: true, target: { low: '5', high: '' } }, global })
  expect(aimed.findAll<HTMLElement>('.flag').map((flag) => flag.element.style.left)).toEqual(['50%'])
  expect(aimed.find<HTMLElement>('.band').element.style.width).toBe('50%')
  await sure(aimed.findAll('input')[1]).setValue('7')
  await sure(aimed.findAll('input')[0]).setValue('')
  expect(aimed.emitted('target')).toEqual([[{ low: '5', high: '7' }], [null]])
})

const whole = {
  lines: [],
  batch: figure(60, 'g'),
  volume: figure(114, 'ml'),
  salt: figure(26.4, '%', 23.7, 29),
  scales: [scale('salt', 26.4, 60), scale('sugar', 90, 60), scale('smoke', 0, 4), scale('herb', 0, 4)],
  keeping: {
    days: 540,
    place: 'airtight, dark and dry',
    because: 'sweet paprika fades first',
    figure: figure(540, 'days'),
  },
  allergens: [],
  cautions: [],
} as unknown as Reading

it('reads a blend in one big answer with its range, and says in one line what there is none of', async () => {
  const props = { reading: whole, kind: 'dry rub', before: null, errors: {}, targets: [], aiming: false }
  const reads = mount(BlendReads, { props, global })
  expect(reads.text()).toContain('26.4 % salt')
  expect(reads.text()).toContain('between 23.7 % and 29.0 %')
  expect(reads.text()).toContain('No smoke, no herb.')
  // a scale never runs over its end
  expect(reads.findAll<HTMLElement>('.fill').map((bar) => bar.element.style.width)).toEqual(['44%', '100%'])
  await reads.setProps({ aiming: true })
  expect(reads.findAll('.scale')).toHaveLength(4)
  await sure(sure(reads.findAll('.scale')[2]).findAll('input')[0]).setValue('2')
  expect(reads.emitted('update:targets')).toEqual([[[{ what: 'smoke', low: '2', high: '' }]]])
  expect(mount(BlendReads, { props: { ...props, reading: null }, global }).text()).toContain('No ratio yet')
  const batch = mount(BatchRow, { props: { modelValue: '60 g', reading: whole }, global })
  expect(batch.text()).toContain('60.0 g')
  expect(batch.text()).toContain('114 ml')
})

it.each([
  [1, '1 day'],
  [5, '5 days'],
  [30, '4 weeks'],
  [540, '18 months'],
  [3650, '10 years'],
])('says %i days as a cook would', (days, words) => {
  const reading = { ...whole, keeping: { ...whole.keeping, days } }
  const found = mount(BlendFindings, { props: { reading, before: null }, global })
  expect(found.text().replace(/\s+/g, ' ')).toContain(`Keeps ${words} airtight`)
})

it('says what keeping and allergens were in the revision before', () => {
  const before = { number: 3, keeps_days: 7, allergens: ['mustard', 'soy'] } as never
  const reading = { ...whole, allergens: ['soy', 'fish'] }
  const found = mount(BlendFindings, { props: { reading, before }, global }).text()
  expect(found).toContain('was 7 days')
  expect(found).toContain('Holds soy, fish')
  expect(found).toContain('Since revision 3: fish came in, mustard went out.')
})

it('offers a proposal with its reasons, and lets one of them be left out', async () => {
  const change = { id: 'less-sugar', text: 'sugar down', reason: 'it burns', source: 'x', mark: 'no source' }
  const answer = {
    lines: [newLine('a/b')], written: 'parts', base: 0, total: 'free', reading: null, changes: [change], met: false,
    difference: { words: ['sugar 19 → 4 %'], rows: [] }, notes: ['The closest that can be had: sugar 4 %.'], unchanged: false,
  } as const // prettier-ignore
  const proposed = { by: 'adapt' as const, title: 'Adapted', name: 'x', answer: answer as never }
  const plate = mount(ProposalPlate, { props: { proposed, now: [], skip: [] }, global })
  expect(plate.text()).toContain('Take the closest')
  expect(plate.text()).toContain('sugar 19 → 4 %')
  await plate.find('input').setValue(false)
  expect(plate.emitted('update:skip')).toEqual([[['less-sugar']]])
  const same = { ...proposed, answer: { ...answer, unchanged: true, notes: [], changes: [] } as never }
  const met = mount(ProposalPlate, { props: { proposed: same, now: [], skip: [] }, global })
  expect(met.text()).toContain('Every target is met already.')
  expect(met.text()).not.toContain('Take')
})

it('writes numbers as parts, percent or relative to a line', async () => {
  const bar = mount(RatioBar, {
    props: { written: 'relative', total: 'free', base: 1, names: ['Salt', 'Pepper'] },
    global,
  })
  const base = choiceOf(bar, 'Base line, which counts 1')
  expect([base.value, base.offers]).toEqual([1, ['Salt = 1', 'Pepper = 1']])
  await base.take(0)
  await bar.find('input[value=percent]').setValue(true)
  expect(bar.emitted('write')).toEqual([
    ['relative', 0],
    ['percent', 1],
  ])
})

it('lays revisions out as a tree: the blend at hand straight through, branches in lanes of their own', () => {
  const node = (id: string, parent: string | null, blend = 'own', kept: string | null = id, now = false) =>
    ({ id, parent, blend_id: blend, kept_at: kept, now, number: 1 }) as unknown as Node
  const placed = layOut([
    node('1', null),
    node('2', '1'),
    node('b1', '1', 'branch'),
    node('3', '2'),
    node('back', '1'),
    node('b2', 'b1', 'branch'),
    node('draft', 'back', 'own', null, true),
  ])
  const lane = Object.fromEntries(placed.map((item) => [item.node.id, item.lane]))
  // going back to 1 makes that way the straight one
  expect([lane['1'], lane.back, lane.draft]).toEqual([0, 0, 0])
  expect(lane['2']).toBe(lane['3'])
  expect(lane.b1).toBe(lane.b2)
  expect(new Set([0, lane['2'], lane.b1]).size).toBe(3)
  expect(placed.map((item) => item.column)).toEqual([0, 1, 2, 3, 4, 5, 6])
  expect(sure(placed[0]).parent).toBe(-1)
  expect(layOut([])).toEqual([])
})
