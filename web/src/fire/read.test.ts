import { expect, test } from 'vitest'
import { read } from './read'

test('what a thermometer shows is said to a tenth, and as it was typed', () => {
  expect(read(36.5, 'C')).toBe('36.5 °C')
  expect(read(120, 'C')).toBe('120 °C')
  expect(read(37.7777, 'F')).toBe('100 °F')
  expect(read(71.15, 'F')).toBe('160.1 °F')
})
