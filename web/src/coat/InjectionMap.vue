<script setup lang="ts">
import { computed, useId, useTemplateRef } from 'vue'
import type { Schemas } from '../api/client'
import { usePreferences } from '../app/preferences'
import { shadeOf } from '../draw/shade'
import { endsOf, putEnd, siteTold, stepped, within, type Bone, type Place } from './siteKeys'
import { useSiteDrag } from './useSiteDrag'
import { sure } from '../kit/sure'

/**
 * The face entered, seen from above and to scale, with its bone and the sites on it. Sites and the ends of a bone are
 * dragged, or moved by the arrow keys; page keys go from site to site and Delete takes one out.
 */
const props = defineProps<{
  solid: Schemas['Solid']
  bones: Bone[]
  sites: Place[]
  misplaced: Schemas['Misplaced'][]
  gap: Schemas['Gap'] | null
  salt: string[]
}>()
const emit = defineEmits<{ sites: [sites: Place[]]; bones: [bones: Bone[]] }>()
const chosen = defineModel<number>('chosen', { required: true })
const { show } = usePreferences()

const clip = useId()
const WIDE = 600
const EDGE = 16
const HANDLED = 3
const s = computed(() => Math.min((WIDE - 2 * EDGE) / props.solid.length_cm, 330 / props.solid.width_cm))
const w = computed(() => props.solid.length_cm * s.value)
const h = computed(() => props.solid.width_cm * s.value)
const left = computed(() => (WIDE - w.value) / 2)
const high = computed(() => h.value + 2 * EDGE + 24)
const round = computed(() => /ellipsoid|bird/.test(props.solid.shape))
const x = (share: number) => left.value + share * w.value
const y = (share: number) => EDGE + share * h.value
const rod = ([x0, y0, x1, y1]: Bone) => `M${x(x0)} ${y(y0)}L${x(x1)} ${y(y1)}`
const wrong = computed(() => new Map(props.misplaced.map((one) => [one.site, one.why])))

const shading = computed(() => shadeOf(props.salt))
const svg = useTemplateRef<SVGSVGElement>('svg')

function where(event: PointerEvent): Place {
  const matrix = sure(sure(svg.value).getScreenCTM()).inverse()
  const at = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix)
  return [within((at.x - left.value) / w.value), within((at.y - EDGE) / h.value)]
}
const setSites = (sites: Place[]) => emit('sites', sites)
const put = (at: number, place: Place) => setSites(props.sites.map((site, n) => (n === at ? place : site)))
const moved = (n: number, end: number, place: Place) =>
  props.bones.map((bone, at) => (at === n ? putEnd(bone, end, place) : bone))
const setEnd = (at: number, end: number, place: Place) => emit('bones', moved(at, end, place))
const lying = { sites: () => props.sites, bones: () => props.bones }
const { drag, drop, cancel, shownSites, shownBones, ...dragging } = useSiteDrag({
  ...lying,
  where,
  put,
  putEnd: setEnd,
})
function grab(event: PointerEvent, what: 'site' | 'bone', at: number, end = 0) {
  if (what === 'site') chosen.value = at
  dragging.grab(event, what, at, end)
  sure(svg.value).setPointerCapture(event.pointerId)
}
function siteKeyed(event: KeyboardEvent, at: number) {
  const told = siteTold(event, at, props.sites, props.solid)
  if (told?.to) put(at, told.to)
  else if (told?.go !== undefined) {
    chosen.value = told.go
    sure(svg.value).querySelector<SVGElement>(`[data-site="${told.go}"]`)?.focus()
  } else if (told) setSites(props.sites.filter((_, n) => n !== at))
}
function boneKeyed(event: KeyboardEvent, at: number, end: number, place: Place) {
  const to = stepped(event, place, props.solid)
  if (to) setEnd(at, end, to)
}
const said = (n: number) => {
  const [sx, sy] = sure(props.sites[n])
  const why = { bone: ', on bone', edge: ', beyond the edge' }[wrong.value.get(n) ?? ''] ?? ''
  const across = show.value.length(sx * props.solid.length_cm)
  return `Site ${n + 1} of ${props.sites.length}, ${across} from the thick end, ${show.value.length(sy * props.solid.width_cm)} down${why}`
}
</script>

<template>
  <svg
    ref="svg"
    :viewBox="`0 0 ${WIDE} ${high}`"
    role="group"
    :aria-label="`Sites on the face entered, ${show.length(solid.length_cm)} by ${show.length(solid.width_cm)}`"
    class="map"
    @pointermove="drag"
    @pointerup="drop"
    @pointercancel="cancel"
  >
    <ellipse v-if="round" class="meat" :cx="x(0.5)" :cy="y(0.5)" :rx="w / 2" :ry="h / 2" />
    <rect v-else class="meat" :x="x(0)" :y="y(0)" :width="w" :height="h" rx="8" />
    <clipPath :id="clip">
      <ellipse v-if="round" :cx="x(0.5)" :cy="y(0.5)" :rx="w / 2" :ry="h / 2" />
      <rect v-else :x="x(0)" :y="y(0)" :width="w" :height="h" rx="8" />
    </clipPath>
    <g v-if="shading" :clip-path="`url(#${clip})`">
      <image class="salt" :href="shading" :x="x(0)" :y="y(0)" :width="w" :height="h" preserveAspectRatio="none" />
    </g>
    <g v-for="(bone, n) in shownBones" :key="`bone ${n}`" class="bone">
      <path class="rim" :d="rod(bone)" :stroke-width="bone[4] * h + 3" />
      <path :d="rod(bone)" :stroke-width="bone[4] * h" />
    </g>
    <g v-if="gap?.wide" class="gap" aria-hidden="true">
      <circle :cx="x(gap.x)" :cy="y(gap.y)" r="13" />
      <text :x="x(gap.x)" :y="y(gap.y) + 5" text-anchor="middle">?</text>
    </g>
    <g
      v-for="(site, n) in shownSites"
      :key="`site ${n}`"
      class="site"
      :class="{ wrong: wrong.has(n), chosen: chosen === n }"
      role="button"
      :tabindex="n === Math.min(chosen, sites.length - 1) ? 0 : -1"
      :data-site="n"
      :aria-label="said(n)"
      @pointerdown.prevent="grab($event, 'site', n)"
      @keydown="siteKeyed($event, n)"
      @focus="chosen = n"
    >
      <circle class="touch" :cx="x(site[0])" :cy="y(site[1])" r="18" />
      <circle class="dot" :cx="x(site[0])" :cy="y(site[1])" :r="wrong.has(n) ? 9 : 6" />
      <path v-if="wrong.has(n)" class="cross" :d="`M${x(site[0]) - 4} ${y(site[1]) - 4}l8 8m0 -8l-8 8`" />
      <text v-if="wrong.has(n) || chosen === n" :x="x(site[0]) + 12" :y="y(site[1]) - 8">{{ n + 1 }}</text>
    </g>
    <template v-if="bones.length <= HANDLED">
      <template v-for="(bone, n) in shownBones" :key="`ends ${n}`">
        <g
          v-for="(place, end) in endsOf(bone)"
          :key="end"
          class="end"
          role="button"
          tabindex="0"
          :aria-label="`${end ? 'Right' : 'Left'} end of bone ${n + 1}: arrow keys`"
          @pointerdown.prevent="grab($event, 'bone', n, end)"
          @keydown="boneKeyed($event, n, end, place)"
        >
          <circle class="touch" :cx="x(place[0])" :cy="y(place[1])" r="18" />
          <circle class="grip" :cx="x(place[0])" :cy="y(place[1])" r="7" />
        </g>
      </template>
    </template>
    <text class="size" :x="x(0.5)" :y="high - 6" text-anchor="middle">
      from above, thick end left: {{ show.length(solid.length_cm) }} × {{ show.length(solid.width_cm)
      }}{{ solid.pieces > 1 ? `, one of ${solid.pieces}` : '' }}
    </text>
  </svg>
</template>

<style scoped>
.map {
  width: 100%;
  display: block;
}
.meat {
  fill: var(--meat);
  stroke: var(--rim);
  stroke-width: 2;
}
.salt {
  filter: blur(1.5px);
}
.bone path {
  fill: none;
  stroke: #f4ead8;
  stroke-linecap: round;
}
.bone .rim {
  stroke: #8d7a66;
}
.gap circle {
  fill: none;
  stroke: var(--caution);
  stroke-width: 2;
  stroke-dasharray: 4 3;
}
.gap text {
  fill: #4a2a00;
  font-weight: 700;
}
.site,
.end {
  cursor: grab;
  touch-action: none;
  outline: none;
}
.touch {
  fill: transparent;
}
.dot {
  fill: var(--salt);
  stroke: #fff;
  stroke-width: 2;
}
.chosen .dot {
  fill: #fff;
  stroke: var(--salt);
  stroke-width: 3.5;
}
.wrong .dot {
  fill: #b3261e;
  stroke: #fff;
}
.cross {
  stroke: #fff;
  stroke-width: 2.4;
  fill: none;
}
.site:focus-visible .touch,
.end:focus-visible .touch {
  stroke: var(--focus);
  stroke-width: 3;
}
.grip {
  fill: #f4ead8;
  stroke: #5d4d3c;
  stroke-width: 2.5;
}
text {
  font-size: var(--t-m);
  fill: var(--salt);
  font-weight: 700;
  paint-order: stroke;
  stroke: #fff;
  stroke-width: 3;
  pointer-events: none;
}
.size {
  fill: var(--muted);
  font-weight: 400;
  stroke: none;
}
@media (max-width: 720px) {
  text {
    font-size: var(--t-h1);
  }
  .touch {
    r: 26px;
  }
  .dot {
    r: 9px;
  }
}
</style>
