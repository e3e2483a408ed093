<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../api/client'
import { usePreferences } from '../app/preferences'
import { percent } from '../kit/units'

/** A core of meat from its surface to its centre, and the salt in it: a curve with its band for each piece. */
export interface Cored {
  letter: string
  name: string
  sample: Schemas['CoreSample']
}
const props = defineProps<{ cores: Cored[]; own: string }>()
const { show } = usePreferences()

const WIDE = 340
const HIGH = 300
const LEFT = 46
/** How deep the picture goes [cm]: a little beyond where the salt is, at most to the centre. */
const deep = computed(() => {
  const reach = Math.max(...props.cores.map((core) => core.sample.reach.high ?? core.sample.reach.value)) / 10
  const centre = Math.max(...props.cores.map((core) => core.sample.depths_cm.at(-1)!))
  return Math.min(centre, Math.max(1.2, Math.ceil(reach * 2 * 1.8) / 2))
})
const STEPS = [1, 2, 3, 4, 5, 8, 10, 15, 20]
// the very surface outruns all else in the first hours; what lies under the first millimetre sets the scale
const top = computed(() => {
  const under = props.cores.flatMap((core) => core.sample.percent.filter((_, n) => core.sample.depths_cm[n] >= 0.1))
  return STEPS.find((step) => step >= Math.max(0.5, ...under)) ?? 20
})
const x = (value: number) => LEFT + (Math.min(value, top.value) / top.value) * (WIDE - LEFT - 12)
const y = (cm: number) => (cm / deep.value) * HIGH
const depths = computed(() => show.value.depthTicks(deep.value))
const line = (values: number[], sample: Schemas['CoreSample']) =>
  sample.depths_cm.map((cm, n) => `${n ? 'L' : 'M'}${x(values[n]).toFixed(1)} ${y(cm).toFixed(1)}`).join('')
const band = (sample: Schemas['CoreSample']) =>
  line(sample.low, sample) +
  [...sample.depths_cm.keys()]
    .reverse()
    .map((n) => `L${x(sample.high[n]).toFixed(1)} ${y(sample.depths_cm[n]).toFixed(1)}`)
    .join('') +
  'Z'
const inWords = computed(() =>
  props.cores
    .map(({ letter, sample }) => {
      const near = Math.max(
        0,
        sample.depths_cm.findIndex((cm) => cm >= 0.5),
      )
      const least = sample.least.length ? `, ${percent(sample.least[near])} where the needle reached least` : ''
      return `${letter}: ${percent(sample.percent[near])} salt half a centimetre in${least}, ${percent(sample.percent.at(-1)!)} in the centre`
    })
    .join('; '),
)
</script>

<template>
  <svg :viewBox="`0 -4 ${WIDE} ${HIGH + 30}`" role="img" :aria-label="inWords">
    <defs>
      <linearGradient id="core-meat" x1="0" y1="0" x2="0" y2="1">
        <stop offset="0" stop-color="#9c3a3c" />
        <stop offset="0.35" stop-color="#c9837c" />
        <stop offset="1" stop-color="#ecc9c1" />
      </linearGradient>
      <clipPath id="core-box"><rect :x="LEFT" y="0" :width="WIDE - LEFT" :height="HIGH" rx="8" /></clipPath>
    </defs>
    <rect :x="LEFT" y="0" :width="WIDE - LEFT" :height="HIGH" rx="8" fill="url(#core-meat)" />
    <g clip-path="url(#core-box)">
      <g
        v-for="core in cores"
        :key="core.letter"
        :class="['curve', `piece-${core.letter}`, { own: core.letter === own }]"
      >
        <path class="band" :d="band(core.sample)" />
        <path v-if="core.sample.least.length" class="least" :d="line(core.sample.least, core.sample)" />
        <path class="halo" :d="line(core.sample.percent, core.sample)" />
        <path class="mid" :d="line(core.sample.percent, core.sample)" />
      </g>
    </g>
    <g class="axis">
      <template v-for="tick in depths" :key="tick.cm">
        <path :d="`M${LEFT - 6} ${y(tick.cm)}h6`" />
        <text :x="LEFT - 10" :y="y(tick.cm) + 5" text-anchor="end">{{ tick.text }}</text>
      </template>
      <template v-for="n in 4" :key="n">
        <path :d="`M${x((top * n) / 4)} ${HIGH}v5`" />
        <text :x="x((top * n) / 4)" :y="HIGH + 20" text-anchor="end">{{ (top * n) / 4 }} %</text>
      </template>
    </g>
  </svg>
</template>

<style scoped>
svg {
  width: 100%;
  overflow: visible;
}
text {
  font-size: var(--t-s);
  fill: var(--muted);
}
.axis path {
  stroke: var(--line-strong);
  fill: none;
}
.curve path {
  fill: none;
}
.curve .band {
  fill: #fff;
  opacity: 0.2;
}
.curve.own .band {
  opacity: 0.34;
}
.halo {
  stroke: #fff;
  stroke-width: 5;
}
.mid {
  stroke: var(--salt);
  stroke-width: 2.6;
}
.piece-B .mid,
.piece-D .mid {
  stroke: #5a3300;
  stroke-dasharray: 2 5;
  stroke-linecap: round;
  stroke-width: 3.4;
}
.least {
  stroke: var(--salt);
  stroke-width: 1.6;
  stroke-dasharray: 7 4;
}
</style>
