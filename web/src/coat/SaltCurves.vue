<script setup lang="ts">
import { scaleLinear } from 'd3-scale'
import { area, line } from 'd3-shape'
import { computed } from 'vue'
import type { Schemas } from '../api/client'
import { usePreferences } from '../app/preferences'
import { percent } from '../kit/units'
import { sure } from '../kit/sure'

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
  const centre = Math.max(...props.cores.map((core) => sure(core.sample.depths_cm.at(-1))))
  return Math.min(centre, Math.max(1.2, Math.ceil(reach * 2 * 1.8) / 2))
})
// the very surface outruns all else in the first hours; what lies under the first millimetre sets the scale
const x = computed(() => {
  const under = props.cores.flatMap((core) =>
    core.sample.percent.filter((_, n) => sure(core.sample.depths_cm[n]) >= 0.1),
  )
  return scaleLinear([0, Math.min(20, Math.max(1, ...under))], [LEFT, WIDE - 12])
    .nice(4)
    .clamp(true)
})
const y = computed(() => scaleLinear([0, deep.value], [0, HIGH]))
const depths = computed(() => show.value.depthTicks(deep.value))
const curve = (values: number[], { depths_cm }: Schemas['CoreSample']) =>
  line<number>(
    (value) => x.value(value),
    (_, n) => y.value(sure(depths_cm[n])),
  )(values) ?? ''
const band = ({ depths_cm, low, high }: Schemas['CoreSample']) =>
  area<number>()
    .y((cm) => y.value(cm))
    .x0((_, n) => x.value(sure(low[n])))
    .x1((_, n) => x.value(sure(high[n])))(depths_cm) ?? ''
const inWords = computed(() =>
  props.cores
    .map(({ letter, sample }) => {
      const near = Math.max(
        0,
        sample.depths_cm.findIndex((cm) => cm >= 0.5),
      )
      const least = sample.least.length ? `, ${percent(sure(sample.least[near]))} where the needle reached least` : ''
      return `${letter}: ${percent(sure(sample.percent[near]))} salt half a centimetre in${least}, ${percent(sure(sample.percent.at(-1)))} in the centre`
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
        <path v-if="core.sample.least.length" class="least" :d="curve(core.sample.least, core.sample)" />
        <path class="halo" :d="curve(core.sample.percent, core.sample)" />
        <path class="mid" :d="curve(core.sample.percent, core.sample)" />
      </g>
    </g>
    <g class="axis">
      <template v-for="tick in depths" :key="tick.cm">
        <path :d="`M${LEFT - 6} ${y(tick.cm)}h6`" />
        <text :x="LEFT - 10" :y="y(tick.cm) + 5" text-anchor="end">{{ tick.text }}</text>
      </template>
      <template v-for="tick in x.ticks(4).slice(1)" :key="tick">
        <path :d="`M${x(tick)} ${HIGH}v5`" />
        <text :x="x(tick)" :y="HIGH + 20" text-anchor="end">{{ tick }} %</text>
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
