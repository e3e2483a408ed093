<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../api/client'
import { usePreferences } from '../ui/preferences'

/** A piece drawn to scale, from above and from its end; both arms share one scale. */
const props = defineProps<{ solid: Schemas['SolidOut']; bareFace: string; longest: number }>()
const { show } = usePreferences()

const WIDE = 300
const s = computed(() => (WIDE - 34) / props.longest)
const top = computed(() => {
  const { length_cm, width_cm, shape, pieces } = props.solid
  const w = length_cm * s.value
  const h = width_cm * s.value
  const round = shape === 'ellipsoid' || shape === 'bird'
  const shown = Math.min(pieces, shape === 'cubes' || shape === 'strips' ? 6 : 4)
  return { w, h, round, shown, corner: shape === 'cylinder' ? h / 2.4 : Math.min(8, h / 4) }
})
const end = computed(() => ({ w: props.solid.width_cm * s.value, h: props.solid.thickness_cm * s.value }))
const stacked = computed(() => Math.min(3, top.value.shown - 1) * 7)
const high = computed(() => Math.max(top.value.h + stacked.value, end.value.h, 30) + 44)
const middle = computed(() => (high.value - 24) / 2)
const joint = (cx: number, cy: number, w: number, h: number) =>
  `M${cx - w / 2} ${cy + h * 0.06}C${cx - w / 2} ${cy - h * 0.42} ${cx - w * 0.22} ${cy - h / 2} ${cx + w * 0.04} ${cy - h / 2}` +
  `S${cx + w / 2} ${cy - h * 0.3} ${cx + w / 2} ${cy + h * 0.02}S${cx + w * 0.24} ${cy + h / 2} ${cx - w * 0.02} ${cy + h / 2}` +
  `S${cx - w / 2} ${cy + h * 0.4} ${cx - w / 2} ${cy + h * 0.06}Z`
const endX = computed(() => WIDE - end.value.w / 2 - 8)
const inWords = computed(
  () =>
    `${props.solid.pieces > 1 ? `${props.solid.pieces} pieces, each ` : ''}${show.value.length(props.solid.length_cm)} long, ` +
    `${show.value.length(props.solid.width_cm)} wide, ${show.value.length(props.solid.thickness_cm)} thick`,
)
</script>

<template>
  <svg :viewBox="`0 0 ${WIDE} ${high}`" role="img" :aria-label="inWords" class="drawing">
    <g class="meat">
      <template v-for="n in top.shown" :key="n">
        <path v-if="top.round" :d="joint(top.w / 2 + 4, middle + (n - 1) * 7 - stacked / 2, top.w, top.h)" />
        <rect
          v-else
          x="4"
          :y="middle - top.h / 2 + (n - 1) * 7 - stacked / 2"
          :width="top.w"
          :height="top.h"
          :rx="top.corner"
        />
      </template>
      <path v-if="top.round" :d="joint(endX, middle, end.w, end.h)" />
      <rect
        v-else
        :x="endX - end.w / 2"
        :y="middle - end.h / 2"
        :width="end.w"
        :height="end.h"
        :rx="Math.min(8, end.h / 4)"
      />
    </g>
    <path
      v-if="bareFace"
      class="bare"
      :d="`M${endX - end.w * 0.4} ${middle - end.h * 0.22}Q${endX} ${middle - end.h * 0.58} ${endX + end.w * 0.4} ${middle - end.h * 0.22}`"
    />
    <text :x="top.w / 2 + 4" :y="high - 6" text-anchor="middle">{{ show.length(solid.length_cm) }}</text>
    <text :x="endX" :y="high - 6" text-anchor="middle">
      {{ show.length(solid.width_cm) }} × {{ show.length(solid.thickness_cm) }}
    </text>
    <text v-if="solid.pieces > 1" :x="top.w / 2 + 4" :y="middle + 5" text-anchor="middle" class="count">
      × {{ solid.pieces }}
    </text>
  </svg>
</template>

<style scoped>
.drawing {
  width: 100%;
  max-height: 200px;
}
.meat > * {
  fill: var(--meat);
  stroke: var(--rim);
  stroke-width: 2;
}
.bare {
  fill: none;
  stroke: #fff4ec;
  stroke-width: 7;
  stroke-linecap: round;
}
text {
  font-size: 14px;
  fill: var(--muted);
}
.count {
  font-weight: 700;
  fill: var(--ink);
}
</style>
