<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { scaleLinear } from 'd3-scale'
import { area, line } from 'd3-shape'
import { computed, useTemplateRef } from 'vue'
import type { Schemas } from '../api/client'
import { usePreferences } from '../app/preferences'
import { heaped } from '../draw/heap'
import { duration } from '../kit/units'
import { sure } from '../kit/sure'
import { browned, timeTicks } from './picture'

/** Heat in a piece by time: centre with its doubt and surface, the meat from surface to centre, and when it is done. */
const props = defineProps<{ reading: Schemas['HeatReading']; letter: string }>()
const { show } = usePreferences()

// as wide as there is room, so that its words are as large as all others
const { width } = useElementSize(useTemplateRef<HTMLElement>('box'))
const WIDE = computed(() => Math.max(280, width.value || 680))
const LEFT = 52
const HIGH = 190
const HEAP = 74
const AXIS = HIGH + HEAP
const MEAT = { top: AXIS + 30, high: 62 }
const GRAIN = 6.6

const chances = computed(() => props.reading.done.filter((one): one is number => one !== null))
const whole = computed(() => Math.max(sure(props.reading.times_s.at(-1)), ...chances.value) * 1.03)
const x = computed(() => scaleLinear([0, whole.value], [LEFT, WIDE.value - 14]))
const hottest = computed(() => Math.max(80, ...props.reading.surface))
const y = computed(() => scaleLinear([0, hottest.value], [HIGH, 8]).nice(4))
const path = (values: number[]) =>
  line<number>(
    (_, n) => x.value(sure(props.reading.times_s[n])),
    (value) => y.value(value),
  )(values) ?? ''
const doubt = computed(
  () =>
    area<number>()
      .x((_, n) => x.value(sure(props.reading.times_s[n])))
      .y0((_, n) => y.value(sure(props.reading.centre_low[n])))
      .y1((_, n) => y.value(sure(props.reading.centre_high[n])))(props.reading.times_s) ?? '',
)
const grains = computed(() => heaped(chances.value.map(x.value), GRAIN))
const ticks = computed(() => timeTicks(whole.value))
const degrees = computed(() => y.value.ticks(4).map((at) => ({ at, text: show.value.temperature(at) })))
/** The meat by time and depth, coarse enough to draw. */
const cells = computed(() => {
  const { times_s, by_depth } = props.reading
  const every = Math.max(1, Math.ceil(times_s.length / 64))
  const rows = sure(by_depth[0]).length
  return times_s.flatMap((at, n) => {
    if (n % every) return []
    const next = times_s[Math.min(times_s.length - 1, n + every)] ?? at
    return sure(by_depth[n]).map((celsius, depth) => ({
      key: `${n} ${depth}`,
      x: x.value(at),
      wide: Math.max(0.5, x.value(next) - x.value(at) + 0.5),
      y: MEAT.top + (depth * MEAT.high) / rows,
      high: MEAT.high / rows + 0.5,
      fill: browned(celsius),
    }))
  })
})
/** Where each phase but the first begins, with its number where there is room for it. */
const borders = computed(() => {
  const begun = props.reading.phases.map((phase, n) => ({ at: x.value(phase.begins_s), n: n + 1, open: phase.open }))
  return begun.slice(1).flatMap(({ at, n, open }) => {
    const next = begun[n]
    return open ? [] : [{ at, n, room: !next || next.open || next.at - at > 16 }]
  })
})
const inWords = computed(() => {
  const { done_s, done_low_s, done_high_s, phases } = props.reading
  const when = done_s === null ? 'not done so' : `off the fire after ${duration(done_s)}`
  const span =
    done_low_s !== null && done_high_s !== null ? `, ${duration(done_low_s)} to ${duration(done_high_s)}` : ''
  const at = phases.map((one, n) => `phase ${n + 1} ends with the centre at ${show.value.temperature(one.centre_c)}`)
  return [`${when}${span}`, ...at].join('; ')
})
</script>

<template>
  <figure ref="box">
    <svg :viewBox="`0 0 ${WIDE} ${MEAT.top + MEAT.high + 4}`" role="img" :aria-label="inWords">
      <g class="axis">
        <template v-for="tick in degrees" :key="tick.at">
          <path :d="`M${LEFT} ${y(tick.at)}H${WIDE - 14}`" />
          <text :x="LEFT - 8" :y="y(tick.at) + 5" text-anchor="end">{{ tick.text }}</text>
        </template>
        <path class="base" :d="`M${LEFT} ${AXIS}H${WIDE - 14}`" />
        <template v-for="tick in ticks" :key="tick.at">
          <path class="base" :d="`M${x(tick.at)} ${AXIS}v5`" />
          <text :x="x(tick.at)" :y="AXIS + 20" text-anchor="middle">{{ tick.text }}</text>
        </template>
      </g>
      <g class="border">
        <template v-for="one in borders" :key="one.n">
          <path :d="`M${one.at} 8V${HIGH}`" />
          <text v-if="one.room" :x="one.at + 4" y="20">{{ one.n }}</text>
        </template>
      </g>
      <path class="doubt" :d="doubt" />
      <path class="surface" :d="path(reading.surface)" />
      <path class="centre" :d="path(reading.centre)" />
      <g class="heap" :class="`piece-${letter}`">
        <circle v-for="(grain, n) in grains" :key="n" :cx="grain.x" :cy="AXIS - grain.y" :r="GRAIN - 0.5" />
      </g>
      <g shape-rendering="crispEdges">
        <rect
          v-for="cell in cells"
          :key="cell.key"
          :x="cell.x"
          :y="cell.y"
          :width="cell.wide"
          :height="cell.high"
          :fill="cell.fill"
        />
      </g>
      <text :x="LEFT - 8" :y="MEAT.top + 12" text-anchor="end">outside</text>
      <text :x="LEFT - 8" :y="MEAT.top + MEAT.high - 2" text-anchor="end">centre</text>
    </svg>
    <figcaption class="muted">
      <span class="key"><i class="centre" /> centre, with where eight in ten would be</span>
      <span class="key"><i class="surface" /> surface</span>
      <span>each grain is one chance in twenty of when it comes off</span>
      <span v-if="chances.length < reading.done.length">
        {{ reading.done.length - chances.length }} in {{ reading.done.length }}: not done so
      </span>
    </figcaption>
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
}
svg {
  width: 100%;
  overflow: visible;
}
text {
  font-size: var(--t-xs);
  fill: var(--muted);
}
.axis path {
  stroke: var(--line);
  fill: none;
}
.axis .base {
  stroke: var(--line-strong);
}
.border path {
  stroke: var(--line-strong);
  stroke-dasharray: 3 4;
}
.doubt {
  fill: var(--cobalt);
  opacity: 0.16;
}
.surface,
.centre {
  fill: none;
  stroke-width: 2.4;
}
.surface {
  stroke: #8d6f5a;
}
.centre {
  stroke: var(--cobalt);
}
.heap circle {
  fill: var(--cobalt);
}
figcaption {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s-2) var(--s-16);
  font-size: var(--t-s);
}
.key {
  display: inline-flex;
  align-items: center;
  gap: var(--s-6);
}
.key i {
  width: 22px;
  height: 3px;
  border-radius: 2px;
}
i.centre {
  background: var(--cobalt);
}
i.surface {
  background: #8d6f5a;
}
</style>
