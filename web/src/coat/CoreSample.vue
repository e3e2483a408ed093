<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../api/client'
import OldMark from '../ui/OldMark.vue'
import PieceBadge from '../ui/PieceBadge.vue'
import type { Band } from '../ui/GrainStrip.vue'
import GrainStrip from '../ui/GrainStrip.vue'
import { usePreferences } from '../ui/preferences'
import { duration, percent } from '../ui/units'
import Why from '../ui/Why.vue'

/** A core from crust to centre: what lies on the surface, and the salt below it at any hour of the hold, pieces overlaid. */
export interface Cored {
  letter: string
  name: string
  sample: Schemas['CoreSample']
}
const props = defineProps<{
  cores: Cored[]
  own: string
  crust: Band[]
  crustPx: number
  binder: string
  surfaceOf: string
  old?: boolean
}>()
const at = defineModel<number | null>('at', { required: true })
const { show } = usePreferences()

const WIDE = 440
const HIGH = 300
const LEFT = 58
const mine = computed(() => props.cores.find((core) => core.letter === props.own) ?? props.cores[0])
const whole = computed(() => Math.max(...props.cores.map((core) => core.sample.whole_s)))
const seconds = computed(() => Math.min(at.value ?? whole.value, whole.value))
const hours = computed({
  get: () => seconds.value,
  set: (value: number) => (at.value = value >= whole.value ? null : value),
})
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
const every = computed(() => [0.1, 0.2, 0.5, 1, 2, 5].find((step) => deep.value / step <= 7) ?? 5)
const depths = computed(() => {
  const count = Math.floor(deep.value / every.value + 1e-9)
  return Array.from({ length: count + 1 }, (_, n) => n * every.value)
})
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
    .map((core) => {
      const near = Math.max(
        0,
        core.sample.depths_cm.findIndex((cm) => cm >= 0.5),
      )
      const least = core.sample.least.length
        ? `, ${percent(core.sample.least[near])} where the needle reached least`
        : ''
      return `${core.letter}: ${percent(core.sample.percent[near])} salt half a centimetre in${least}, ${percent(core.sample.percent.at(-1)!)} in the centre`
    })
    .join('; '),
)
const centre = computed(() => mine.value.sample.depths_cm.at(-1)!)
</script>

<template>
  <section class="plate core" aria-label="From crust to centre">
    <header>
      <h2>From crust to centre</h2>
      <p class="muted">
        at {{ duration(mine.sample.time_s) }} of {{ duration(mine.sample.whole_s) }}: salt reaches
        <Why :figure="mine.sample.reach" of="Reach of the salt">{{ mine.sample.reach.value.toFixed(1) }} mm</Why>
        <OldMark v-if="old" />
      </p>
    </header>
    <div class="sample">
      <div class="crust">
        <GrainStrip v-if="crust.length" :bands="crust" :height="crustPx" :label="`Crust of ${surfaceOf}`" />
        <div v-if="binder" class="binder" :style="{ background: binder }" />
      </div>
      <svg :viewBox="`0 -4 ${WIDE} ${HIGH + 30}`" role="img" :aria-label="inWords">
        <defs>
          <linearGradient id="core-meat" x1="0" y1="0" x2="0" y2="1">
            <stop offset="0" stop-color="#9c3a3c" />
            <stop offset="0.35" stop-color="#c9837c" />
            <stop offset="1" stop-color="#ecc9c1" />
          </linearGradient>
          <clipPath id="core-box"><rect :x="LEFT" y="0" :width="WIDE - LEFT" :height="HIGH" /></clipPath>
        </defs>
        <rect :x="LEFT" y="0" :width="WIDE - LEFT" :height="HIGH" fill="url(#core-meat)" />
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
          <template v-for="cm in depths" :key="cm">
            <path :d="`M${LEFT - 6} ${y(cm)}h6`" />
            <text :x="LEFT - 10" :y="y(cm) + 5" text-anchor="end">
              {{ Number((cm * 10).toFixed(1)) }}{{ cm ? '' : ' mm' }}
            </text>
          </template>
          <template v-for="n in 4" :key="n">
            <path :d="`M${x((top * n) / 4)} ${HIGH}v5`" />
            <text :x="x((top * n) / 4)" :y="HIGH + 20" text-anchor="end">{{ (top * n) / 4 }} %</text>
          </template>
        </g>
      </svg>
    </div>
    <label class="time">
      <span class="sr-only">Time of the hold</span>
      <input v-model.number="hours" type="range" min="0" :max="whole" step="900" :aria-valuetext="duration(seconds)" />
    </label>
    <p class="key">
      <span v-for="core in cores" :key="core.letter"><PieceBadge :letter="core.letter" /> {{ core.name }}</span>
      <span v-if="cores.some((core) => core.sample.least.length)" class="muted"
        ><svg class="swatch" viewBox="0 0 26 8" aria-hidden="true"><path class="least" d="M0 4h26" /></svg> the tenth
        the needle reached least</span
      >
      <span class="muted">bands: diffusivity halved and doubled; centre at {{ show.length(centre) }}</span>
    </p>
    <p>{{ mine.sample.says.join(' ') }}</p>
  </section>
</template>

<style scoped>
.core {
  padding: 18px 22px;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 10px;
  align-content: start;
}
header {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  flex-wrap: wrap;
  gap: 4px 12px;
}
h2 {
  font-size: 20px;
}
p {
  margin: 0;
  font-size: 14px;
}
.sample {
  display: grid;
}
.crust {
  margin-left: calc(100% * 58 / 440);
}
.crust :deep(.frame) {
  border: 0;
  border-radius: 10px 10px 0 0;
}
.binder {
  height: 9px;
}
svg {
  width: 100%;
  overflow: visible;
}
text {
  font-size: 13.5px;
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
  stroke: #14235c;
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
  stroke: #14235c;
  stroke-width: 1.6;
  stroke-dasharray: 7 4;
}
.swatch {
  width: 26px;
  height: 8px;
  margin-right: 4px;
  background: #ecc9c1;
}
.time input {
  width: 100%;
  accent-color: var(--cobalt);
  min-height: 28px;
  padding: 0 !important;
  background: none !important;
}
.key {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  align-items: center;
}
@media (max-width: 720px) {
  .time input {
    min-height: 44px;
  }
  svg text {
    font-size: 18px;
  }
}
</style>
