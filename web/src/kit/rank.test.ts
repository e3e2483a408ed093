import { expect, test } from 'vitest'
import { ref } from 'vue'
import { ranked, rankOf, useRanked } from './rank'

test('whole words go before beginnings, and those before insides', () => {
  const names = ['Fresh pineapple juice', 'Applejack', 'Apple juice']
  expect(names.map((name) => rankOf(name, 'apple'))).toEqual([2, 1, 0])
  expect(ranked(names, (name) => name, 'apple')).toEqual(['Apple juice', 'Applejack', 'Fresh pineapple juice'])
  expect(ranked(names, (name) => name, 'apple juice')).toEqual(['Apple juice', 'Fresh pineapple juice'])
})

test('every word counts, in whatever order and with whatever accents', () => {
  expect(rankOf('Leg of goat', 'goat leg')).toBe(0)
  expect(rankOf('Leg of goat', 'goat rack')).toBe(-1)
  expect(rankOf('Gewürz', 'gewurz')).toBe(0)
  expect(rankOf('Lamb shoulder', '')).toBe(0)
})

test('a list shows whole once one of it is chosen, and of equals the earlier first', () => {
  const chosen = ref('')
  const { search, shown } = useRanked(ref(['Lamb neck', 'Lamb leg']), String, () => chosen.value)
  search.value = 'lamb'
  expect(shown.value).toEqual(['Lamb neck', 'Lamb leg'])
  search.value = 'leg'
  expect(shown.value).toEqual(['Lamb leg'])
  // typed in full it is still looked for: only what is chosen shows the whole list
  search.value = 'Lamb leg'
  expect(shown.value).toEqual(['Lamb leg'])
  chosen.value = 'Lamb leg'
  expect(shown.value).toEqual(['Lamb neck', 'Lamb leg'])
})

test('what begins with all that was typed goes before what holds its words apart', () => {
  const named = ['Lock-gate handful rub', 'Rub of the lock', 'Lock rub']
  expect(ranked(named, String, 'lock rub')).toEqual(['Lock rub', 'Lock-gate handful rub', 'Rub of the lock'])
  expect(ranked(named, String, 'rub')).toEqual(['Rub of the lock', 'Lock-gate handful rub', 'Lock rub'])
})
