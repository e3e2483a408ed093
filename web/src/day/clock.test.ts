import { expect, it } from 'vitest'
import { clockOf, uncrowded } from './clock'

const at = (text: string) => Date.parse(text)
const night = { from: at('2026-12-04T22:00:00Z'), to: at('2026-12-05T06:00:00Z') }

it('folds the night away and gives the hours of the day their room', () => {
  const clock = clockOf(at('2026-12-04T18:00:00Z'), at('2026-12-05T18:00:00Z'), [night], 1000, 'Europe/Berlin')
  const hour = clock.x(at('2026-12-05T10:00:00Z')) - clock.x(at('2026-12-05T09:00:00Z'))
  expect(clock.x(at('2026-12-04T19:00:00Z')) - clock.x(at('2026-12-04T18:00:00Z'))).toBeCloseTo(hour)
  expect(clock.x(night.to) - clock.x(night.from)).toBeCloseTo(0.75 * hour)
  expect(clock.x(at('2026-12-05T18:00:00Z'))).toBeCloseTo(1000)
  expect(clock.x.invert(clock.x(at('2026-12-05T12:30:00Z')))).toBeCloseTo(at('2026-12-05T12:30:00Z'), -2)
  expect(clock.ticks.map((tick) => Number(tick.text)).every((text) => text >= 7 && text < 23)).toBe(true)
  expect(clock.ticks.filter((tick) => tick.day).map((tick) => tick.day)).toEqual(['2026-12-04', '2026-12-05'])
})

it('writes the hours of the wall where the clocks are put forward', () => {
  const clock = clockOf(at('2026-03-28T23:30:00Z'), at('2026-03-29T04:30:00Z'), [], 1000, 'Europe/Berlin')
  expect(clock.ticks.map((tick) => tick.text)).toEqual(['1', '3', '4', '5', '6'])
})

it('has a day without nights, and one that begins in one', () => {
  const begun = clockOf(at('2026-12-05T03:00:00Z'), at('2026-12-05T09:00:00Z'), [night], 600, 'Europe/Berlin')
  expect(begun.x(at('2026-12-05T03:00:00Z'))).toBe(0)
  expect(begun.nights).toEqual([{ from: at('2026-12-05T03:00:00Z'), to: night.to }])
  expect(clockOf(0, 3_600_000, [], 100, 'UTC').x(1_800_000)).toBeCloseTo(50)
})

it('leaves out words that would lie on others', () => {
  const labels = [0, 30, 70, 75].map((left) => ({ at: left, wide: 40 }))
  expect(uncrowded(labels).map((label) => label.at)).toEqual([0, 70])
  // what comes first stays, wherever along the line it is
  expect(uncrowded([...labels].reverse()).map((label) => label.at)).toEqual([75, 30])
})
