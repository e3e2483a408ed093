import { expect, test } from 'vitest'
import { heaped } from './heap'

test('a grain alone lies on the axis where it fell', () => {
  expect(heaped([40], 5)).toEqual([{ x: 40, y: 5 }])
})

test('grains that fell on the same place lie on each other', () => {
  expect(heaped([40, 40, 40], 5).map((one) => one.y)).toEqual([5, 15, 25])
})

test('no two grains lie in each other, and none below the axis', () => {
  const at = Array.from({ length: 20 }, (_, n) => 100 + 40 * Math.sin(n * 2.3))
  const lying = heaped(at, 5)
  expect(lying).toHaveLength(20)
  for (const [n, one] of lying.entries()) {
    expect(one.y).toBeGreaterThanOrEqual(5)
    for (const other of lying.slice(0, n)) {
      expect(Math.hypot(one.x - other.x, one.y - other.y)).toBeGreaterThan(10 - 1e-3)
    }
  }
})
