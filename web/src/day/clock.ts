import { scaleLinear } from 'd3-scale'
import { Temporal } from 'temporal-polyfill'

/** A time of a day's axis, in ms since the epoch. */
export interface Span {
  from: number
  to: number
}

/** How wide a night is that is folded away, in minutes of the rest. */
const FOLDED_MIN = 45
const MINUTE = 60_000

/** A day's axis: places from left to right for moments, nights folded away, and what is written along it. */
export function clockOf(from: number, to: number, nights: Span[], wide: number, zone: string) {
  const slept = nights
    .map((night) => ({ from: Math.max(night.from, from), to: Math.min(night.to, to) }))
    .filter((night) => night.to > night.from)
  const edges = [from, ...slept.flatMap((night) => [night.from, night.to]), to]
  let along = 0
  const places = edges.map((edge, n) => {
    const before = edges[n - 1]
    if (before !== undefined) along += n % 2 === 0 ? Math.min(FOLDED_MIN * MINUTE, edge - before) : edge - before
    return along
  })
  const x = scaleLinear(
    edges,
    places.map((place) => (place / Math.max(1, along)) * wide),
  ).clamp(true)
  const hour = Temporal.Instant.fromEpochMilliseconds(from).toZonedDateTimeISO(zone)
  const ticks: { at: number; text: string; day: string }[] = []
  const awakeHours = along / MINUTE / 60
  const every = [1, 2, 3, 4, 6, 12].find((hours) => (wide * hours) / awakeHours >= 44) ?? 24
  let last = -Infinity
  let day = ''
  for (let at = hour.round({ smallestUnit: 'hour', roundingMode: 'ceil' }); ; at = at.add({ hours: 1 })) {
    const ms = at.epochMilliseconds
    if (ms > to) break
    const asleep = slept.some((night) => ms >= night.from && ms < night.to)
    if (asleep || x(ms) - last < 40 || (at.hour % every !== 0 && last !== -Infinity)) continue
    const name = at.toPlainDate().toString()
    ticks.push({ at: x(ms), text: String(at.hour), day: name === day ? '' : name })
    day = name
    last = x(ms)
  }
  return { x, ticks, nights: slept }
}

/** Pieces of text along a line, the more important first: those that would lie on one before them are left out. */
export function uncrowded<T extends { at: number; wide: number }>(labels: T[]): T[] {
  const kept: T[] = []
  for (const label of labels) {
    if (kept.every((other) => label.at >= other.at + other.wide || other.at >= label.at + label.wide)) kept.push(label)
  }
  return kept
}
