import { scaleLinear, scaleTime } from 'd3-scale'
import { area, line } from 'd3-shape'
import { computed, type Ref } from 'vue'
import { uncrowded } from '../day/clock'
import { usePreferences } from '../app/preferences'
import { heaped } from '../draw/heap'
import { duration, time } from '../kit/units'
import { sure } from '../kit/sure'
import { useThisFire, type Line } from './useFire'

export const [LEFT, RIGHT, TOP, HIGH, PIT_TOP, PIT_HIGH] = [46, 12, 26, 232, 276, 44]
const GRAIN = 4.6

/** How large grains are at most, so that a heap of them is no higher than this. */
function fitting(at: number[], high: number): number {
  let size = GRAIN
  while (size > 2.6 && Math.max(0, ...heaped(at, size).map((one) => one.y)) + size > high) size *= 0.85
  return size
}

/** Where everything of a cook's picture lies, in one of so many pixels across. */
export function usePicture(WIDE: Ref<number>) {
  const { fire, lines, now } = useThisFire()
  const { show } = usePreferences()
  const reading = computed(() => fire.value?.reading ?? null)
  const on = computed(() => (reading.value?.pieces ?? []).filter((piece) => piece.on_at))
  const ms = (iso: string) => Date.parse(iso)
  const centres = computed(() => lines.value.filter((one) => one.role === 'centre'))
  const pits = computed(() => lines.value.filter((one) => one.role === 'pit'))
  /** What was typed by hand, as a line of its own. */
  const typed = computed(() =>
    on.value.map((piece) => ({
      letter: piece.letter,
      points: (fire.value?.events ?? [])
        .filter((one) => one.what === 'read' && one.word === 'centre' && one.letter === piece.letter)
        .map((one) => ({ at: ms(one.at), celsius: one.celsius ?? 0 })),
    })),
  )
  const typedPit = computed(() =>
    (fire.value?.events ?? [])
      .filter((one) => one.what === 'read' && one.word === 'pit')
      .map((one) => ({ at: ms(one.at), celsius: one.celsius ?? 0 })),
  )
  const outlooks = computed(() =>
    on.value.flatMap((piece) =>
      piece.outlook ? [{ letter: piece.letter, of: piece.outlook, target: piece.target_c }] : [],
    ),
  )
  const span = computed<[number, number]>(() => {
    const from = ms(fire.value?.began_at ?? new Date(now.value).toISOString())
    const ends = outlooks.value.flatMap(({ of }) => of.done.flatMap((one) => (one ? [ms(one)] : [])))
    const last = fire.value?.ended_at ? ms(fire.value.ended_at) : now.value
    const most = Math.max(last, ...ends)
    return [from, Math.max(most + (most - from) * 0.04, from + 3_600_000)]
  })
  const x = computed(() => scaleTime(span.value, [LEFT, WIDE.value - RIGHT]))
  const hottest = computed(() => {
    const targets = outlooks.value.map(({ target }) => target ?? 0)
    return (
      Math.max(60, ...targets.map((one) => one + 8), ...centres.value.flatMap((one) => one.celsius.slice(-400))) + 4
    )
  })
  const y = computed(() => scaleLinear([0, Math.min(130, hottest.value)], [HIGH, TOP]))
  const pathOf = (one: Line) =>
    line<number>(
      (at) => x.value(at),
      (_, n) => y.value(Math.min(130, sure(one.celsius[n]))),
    )(one.at) ?? ''
  const fans = computed(() =>
    outlooks.value.map(({ letter, of }) => ({
      letter,
      band:
        area<string>(
          (at) => x.value(ms(at)),
          (_, n) => y.value(sure(of.fan.low[n])),
          (_, n) => y.value(Math.min(130, sure(of.fan.high[n]))),
        )(of.fan.at.filter((at) => ms(at) <= span.value[1])) ?? '',
      middle:
        line<string>(
          (at) => x.value(ms(at)),
          (_, n) => y.value(Math.min(130, sure(of.fan.middle[n]))),
        )(of.fan.at.filter((at) => ms(at) <= span.value[1])) ?? '',
    })),
  )
  const heaps = computed(() => {
    const rows = outlooks.value.map(({ letter, of, target }) => ({
      letter,
      base: target === null ? HIGH : y.value(target),
      // what is done is looked at: no chance of it is ahead any more
      at: of.done.flatMap((one) => (one && ms(one) > now.value && ms(one) <= span.value[1] ? [x.value(ms(one))] : [])),
      never: of.done.filter((one) => !one).length,
    }))
    // a chance is as large as another, whichever piece it is of
    const size = Math.min(GRAIN, ...rows.map((row) => fitting(row.at, row.base - TOP + 8)))
    return rows.map(({ at, ...row }) => ({ ...row, size, grains: heaped(at, size) }))
  })
  const targets = computed(() => [
    ...new Set(outlooks.value.flatMap(({ target }) => (target === null ? [] : [target]))),
  ])
  const hours = computed(() => x.value.ticks(Math.max(3, Math.floor(WIDE.value / 110))))
  const degrees = computed(() => y.value.ticks(5))
  const stalls = computed(() =>
    on.value.flatMap((piece) =>
      piece.stall_at
        ? [
            {
              letter: piece.letter,
              x: x.value(ms(piece.stall_at)),
              wide: x.value(now.value) - x.value(ms(piece.stall_at)),
            },
          ]
        : [],
    ),
  )
  const DULL = new Set(['read', 'note', 'photo', 'tick', 'weather', 'began', 'weight', 'came back'])
  const flags = computed(() =>
    uncrowded(
      (fire.value?.events ?? [])
        .filter((one) => !DULL.has(one.what))
        .map((one) => {
          const text = `${one.what === 'feel' ? one.word : one.says}${on.value.length > 1 && one.letter ? ` ${one.letter}` : ''}`
          return { key: one.key, at: x.value(ms(one.at)), text, wide: text.length * 6.6 + 8 }
        })
        .reverse(),
    ),
  )
  const pit = computed(() => {
    const all = [...pits.value.flatMap((one) => one.celsius), ...typedPit.value.map((one) => one.celsius)]
    const { low_c: low, high_c: high } = reading.value?.pit ?? { low_c: null, high_c: null }
    const top =
      Math.max(high ?? 0, ...(all.length ? [Math.min(...all.slice(-3000)), ...[quantile(all, 0.99)]] : [120])) + 12
    const bottom = Math.max(0, Math.min(low ?? 80, quantile(all.length ? all : [80], 0.02)) - 20)
    const scale = scaleLinear([bottom, top], [PIT_TOP + PIT_HIGH, PIT_TOP]).clamp(true)
    return {
      typed: typedPit.value.map((one) => ({ x: x.value(one.at), y: scale(one.celsius) })),
      paths: pits.value.map((one) => ({
        key: one.key,
        d:
          area<number>(
            (at) => x.value(at),
            PIT_TOP + PIT_HIGH,
            (_, n) => scale(sure(one.celsius[n])),
          )(one.at) ?? '',
      })),
      band: low === null || high === null ? null : { y: scale(high), high: scale(low) - scale(high) },
    }
  })
  function quantile(values: number[], share: number): number {
    const sorted = [...values].sort((a, b) => a - b)
    return sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))] ?? 0
  }
  const dips = computed(() =>
    (reading.value?.pit.dips ?? []).map((dip) => {
      const lasted = duration((ms(dip.to_at) - ms(dip.from_at)) / 1000)
      const cost =
        dip.cost_s === null ? '' : dip.cost_s < 60 ? ', next to no time lost' : `: about ${duration(dip.cost_s)} later`
      return {
        key: dip.from_at,
        at: (x.value(ms(dip.from_at)) + x.value(ms(dip.to_at))) / 2,
        says: `${lasted} under ${show.value.temperature(dip.band_c)}${cost}`,
      }
    }),
  )
  /** Dips under the strip, the costliest first where there is little room. */
  const marked = computed(() => uncrowded(dips.value.map((dip) => ({ ...dip, wide: dip.says.length * 6.4 })).reverse()))
  const inWords = computed(() =>
    [
      ...outlooks.value.map(({ letter, of }) => `${letter}: done about ${of.done_at ? time(of.done_at) : 'never so'}`),
      ...dips.value.map((dip) => dip.says),
    ].join('; '),
  )
  const otherwise = computed(() =>
    outlooks.value.flatMap(({ letter, of }) =>
      of.otherwise.flatMap((one) => {
        if (one.sooner_s === null || Math.abs(one.sooner_s) < 120) return []
        return [
          `${letter}, ${lowered(show.value.sentence(one.says))}: ${duration(Math.abs(one.sooner_s))} ${one.sooner_s > 0 ? 'sooner' : 'later'}`,
        ]
      }),
    ),
  )
  /** A sentence as it goes on in another. */
  const lowered = (text: string) => text.charAt(0).toLowerCase() + text.slice(1)
  const pulls = computed(() =>
    outlooks.value.flatMap(({ letter, of }) => {
      if (of.carry_k < 0.5) return []
      const rise = `${letter} rises by about ${show.value.difference(of.carry_k)} more at rest`
      return [of.pull_c === null ? rise : `${rise}: take it off at ${show.value.temperature(of.pull_c)}`]
    }),
  )
  const fuel = computed(() => reading.value?.pit.fuel_at ?? null)
  return {
    reading,
    centres,
    typed,
    x,
    y,
    pathOf,
    fans,
    heaps,
    targets,
    hours,
    degrees,
    stalls,
    flags,
    pit,
    marked,
    inWords,
    otherwise,
    pulls,
    fuel,
  }
}
