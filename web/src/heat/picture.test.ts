import { expect, test } from 'vitest'
import { browned, timeTicks } from './picture'

test('a scale of time has at most nine marks, in minutes or hours', () => {
  expect(timeTicks(20 * 60).map((tick) => tick.text)).toEqual(['0 min', '5', '10', '15', '20'])
  expect(timeTicks(13 * 3600).map((tick) => tick.text)).toEqual(['0 h', '2', '4', '6', '8', '10', '12'])
  for (const hours of [0.05, 1, 7, 30, 72]) expect(timeTicks(hours * 3600).length).toBeLessThanOrEqual(9)
})

test('meat darkens as it is heated further', () => {
  const light = (celsius: number) => Number(browned(celsius).match(/\d+/g)?.[0])
  expect(light(180)).toBeLessThan(light(115))
  expect(light(115)).toBeLessThan(light(74))
  expect(browned(20)).toBe(browned(35))
})
