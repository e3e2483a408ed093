import { mount } from '@vue/test-utils'
import { expect, test } from 'vitest'
import type { Schemas } from '../api/client'
import { counted, fileOf, upper } from './useQuestion'
import CutAnswer from './CutAnswer.vue'
import GrowthPicture from './GrowthPicture.vue'
import TakePicture from './TakePicture.vue'

const figure = (value: number): Schemas['Figure'] => ({
  value,
  unit: 'points',
  error: '',
  steps: [],
  low: null,
  high: null,
})
const row = (changed: Partial<Schemas['CutRow']> = {}): Schemas['CutRow'] => ({
  cut: 'duck-leg', state: 'first', withheld: '', headline: 'Rubbed is better', says: ['19 of 20 grains say rubbed.'],
  belief: null, difference: figure(-1.25), chance: figure(0.93),
  counted: { cooks: 3, cards: 12, clean_cooks: 3, clean_cards: 12 }, votes: { first: 0, second: 0, neither: 0 }, own: -1.5, more: null, ...changed,
}) // prettier-ignore
const global = { stubs: { Why: { template: '<button><slot /></button>' } } }

test('an answer is told in words first, with the figures that say why', () => {
  const answer = mount(CutAnswer, {
    props: { row: row(), name: 'Duck legs', held: 'It has held over two cooks.' },
    global,
  })
  expect(answer.text()).toContain('Rubbed is better')
  expect(answer.text()).toContain('It has held over two cooks.')
  expect(answer.findAll('button').map((one) => one.text())).toEqual(['19 of 20 grains', '1.3 points'])
})

test('where nobody scored both there are no figures', () => {
  const answer = mount(CutAnswer, { props: { row: row({ difference: null, chance: null }), name: 'Trout' }, global })
  expect(answer.findAll('button')).toHaveLength(0)
})

test('belief grows from left to right, and only what is named has full marks', () => {
  const one = (key: string, first: number, state: string): Schemas['Grown'] => ({ key, name: key, chances: { first, second: 0.01, neither: 0.99 - first }, mean: -1, low: -2, high: 0, state }) // prettier-ignore
  const grown = [one('1', 0.6, 'not yet known'), one('2', 0.95, 'first')]
  const picture = mount(GrowthPicture, { props: { grown, names: ['rubbed', 'marinated'], about: 'Duck legs' }, global })
  const marks = picture.findAll('.first circle')
  expect(marks).toHaveLength(2)
  expect(Number(marks[0]?.attributes('cx'))).toBeLessThan(Number(marks[1]?.attributes('cx')))
  expect(Number(marks[0]?.attributes('cy'))).toBeGreaterThan(Number(marks[1]?.attributes('cy')))
  expect(marks.map((mark) => mark.classes('hollow'))).toEqual([true, false])
  expect(picture.findAll('.neither circle').every((mark) => mark.classes('hollow'))).toBe(true)
  const names = picture.findAll('.end').map((text) => Number(text.attributes('y')))
  expect(new Set(names).size).toBe(3)
})

test('a picture can be taken as both kinds', () => {
  const take = mount(TakePicture, { props: { of: () => null, name: 'Duck legs' } })
  expect(take.findAll('button').map((one) => one.text())).toEqual(['SVG', 'PNG'])
})

test('counts and addresses are written as they are read', () => {
  expect([counted(0, 'cook'), counted(1, 'cook'), counted(2, 'cook')]).toEqual(['0 cooks', '1 cook', '2 cooks'])
  expect(upper('rubbed')).toBe('Rubbed')
  expect(fileOf('cards.csv', { kind: 'way', cuts: 'duck-leg,goat-leg' })).toBe(
    '/api/verdicts/cards.csv?kind=way&cuts=duck-leg%2Cgoat-leg',
  )
})
