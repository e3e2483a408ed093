<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../api/client'
import { usePreferences } from '../app/preferences'

/** A piece drawn to scale from above and from its side, thick end left; all pieces share one scale. Faces can be tapped. */
const props = defineProps<{
  solid: Schemas['Solid']
  faces: Schemas['FaceReading'][]
  bones: Schemas['Bone'][]
  thin: number
  thick: number
  /** Thickness of the meat, of a hollow bird that of its breast. */
  meat: number
  longest: number
  tallest: number
}>()
defineEmits<{ face: [name: string] }>()
const { show } = usePreferences()

const WIDE = 300
const LEFT = 12
const s = computed(() => Math.min((WIDE - 84) / props.longest, 236 / props.tallest))
const w = computed(() => props.solid.length_cm * s.value)
const h = computed(() => props.solid.width_cm * s.value)
const round = computed(() => ['ellipsoid', 'bird'].includes(props.solid.shape))
const sideTop = computed(() => h.value + 54)
const t = computed(() => props.solid.thickness_cm * s.value)
const high = computed(() => sideTop.value + Math.max(props.thick * s.value, t.value) + 30)

/** An outline without corners for a joint, with them for a slab; its right end is `thin` of its left one's height. */
function outline(x: number, middle: number, width: number, left: number, right: number): string {
  const [a, b] = [left / 2, right / 2]
  if (!round.value) {
    const r = Math.min(6, a / 2, b / 2)
    return (
      `M${x + r} ${middle - a}L${x + width - r} ${middle - b}Q${x + width} ${middle - b} ${x + width} ${middle - b + r}` +
      `L${x + width} ${middle + b - r}Q${x + width} ${middle + b} ${x + width - r} ${middle + b}L${x + r} ${middle + a}` +
      `Q${x} ${middle + a} ${x} ${middle + a - r}L${x} ${middle - a + r}Q${x} ${middle - a} ${x + r} ${middle - a}Z`
    )
  }
  const at = x + width * 0.42
  const big = Math.max(a, b)
  return (
    `M${x} ${middle}C${x} ${middle - a * 0.9} ${x + width * 0.16} ${middle - big} ${at} ${middle - big}` +
    `S${x + width} ${middle - b} ${x + width} ${middle}S${x + width * 0.8} ${middle + big} ${at} ${middle + big}` +
    `S${x} ${middle + a * 0.9} ${x} ${middle}Z`
  )
}
/** From above a joint is the ellipse that its surface is counted from, and its sites are laid on. */
const above = computed(() => {
  if (!round.value) return outline(LEFT, h.value / 2 + 8, w.value, h.value, h.value)
  const [a, b, y] = [w.value / 2, h.value / 2, h.value / 2 + 8]
  return `M${LEFT} ${y}A${a} ${b} 0 0 1 ${LEFT + w.value} ${y}A${a} ${b} 0 0 1 ${LEFT} ${y}Z`
})
const middle = computed(() => sideTop.value + Math.max(props.thick * s.value, t.value) / 2)
const side = computed(() => outline(LEFT, middle.value, w.value, props.thick * s.value, props.thin * s.value))

const rods = computed(() =>
  props.bones.map(({ x0, y0, x1, y1, wide }) => ({
    path: `M${LEFT + x0 * w.value} ${8 + y0 * h.value}L${LEFT + x1 * w.value} ${8 + y1 * h.value}`,
    wide: wide * h.value,
  })),
)
const UP = ['skin', 'fat cap', 'silver skin']
/** Where a face is drawn on the side view: on top, or along the bottom. */
const drawn = computed(() =>
  props.faces.map((face, n) => {
    const top = UP.includes(face.name)
    const nth = props.faces.slice(0, n).filter((other) => UP.includes(other.name) === top).length
    const sign = top ? -1 : 1
    const half = (along: number) => ((props.thick + (props.thin - props.thick) * along) * s.value) / 2
    const y = (along: number, share: number) => middle.value + sign * (half(along) * share + 1 + nth * 9)
    const [from, to] = [0.14, 0.86]
    const ends = round.value ? 0.62 : 1
    const [left, right, top_] = [y(from, ends), y(to, ends), y(0.45, 1)]
    // the curve passes through the middle of the face: its handle lies as far again beyond it
    const bend = round.value ? 2 * top_ - (left + right) / 2 : (left + right) / 2
    const x = (along: number) => LEFT + w.value * along
    const path = `M${x(from)} ${left}Q${x(0.48)} ${bend} ${x(to)} ${right}`
    return { ...face, path }
  }),
)
const inWords = computed(
  () =>
    `${props.solid.pieces > 1 ? `${props.solid.pieces} pieces, each ` : ''}${show.value.length(props.solid.length_cm)} long, ` +
    `${show.value.length(props.solid.width_cm)} wide, ${show.value.length(props.solid.thickness_cm)} thick`,
)
</script>

<template>
  <svg :viewBox="`0 0 ${WIDE} ${high}`" role="group" :aria-label="inWords" class="drawing">
    <path class="meat" :d="above" />
    <path v-for="(bone, n) in rods" :key="n" class="bone" :d="bone.path" :stroke-width="bone.wide" />
    <path class="meat" :d="side" />
    <g
      v-for="face in drawn"
      :key="face.name"
      class="face"
      :class="face.state.replace(' ', '-')"
      role="button"
      tabindex="0"
      :aria-label="`${face.name}: ${face.state}`"
      @click="$emit('face', face.name)"
      @keydown.enter.prevent="$emit('face', face.name)"
      @keydown.space.prevent="$emit('face', face.name)"
    >
      <path class="touch" :d="face.path" />
      <path class="line" :d="face.path" />
    </g>
    <g class="dims" aria-hidden="true">
      <path :d="`M${LEFT} ${h + 22}H${LEFT + w}M${LEFT} ${h + 18}v8M${LEFT + w} ${h + 18}v8`" />
      <text :x="LEFT + w / 2" :y="h + 36" text-anchor="middle">{{ show.length(solid.length_cm) }}</text>
      <path :d="`M${LEFT + w + 12} 8V${8 + h}M${LEFT + w + 8} 8h8M${LEFT + w + 8} ${8 + h}h8`" />
      <text :x="LEFT + w + 20" :y="h / 2 + 13">{{ show.length(solid.width_cm) }}</text>
      <path :d="`M${LEFT + w + 12} ${middle - (thin * s) / 2}V${middle + (thin * s) / 2}`" />
      <text :x="LEFT + w + 20" :y="middle + 5">{{ show.length(thin) }}</text>
      <text v-if="solid.pieces > 1" :x="LEFT + w / 2" :y="h / 2 + 14" text-anchor="middle" class="count">
        × {{ solid.pieces }}
      </text>
      <text :x="LEFT" :y="high - 4">
        {{ show.length(solid.thickness_cm) }}
        {{ solid.shape === 'bird' ? `high, the breast ${show.length(meat)} thick` : 'thick in the middle' }}
      </text>
    </g>
  </svg>
</template>

<style scoped>
.drawing {
  width: 100%;
  max-height: 300px;
}
.meat {
  fill: var(--meat);
  stroke: var(--rim);
  stroke-width: 2;
}
.bone {
  fill: none;
  stroke: #f4ead8;
  stroke-linecap: round;
  opacity: 0.55;
}
.dims path {
  fill: none;
  stroke: var(--line-strong);
  stroke-width: 1.2;
}
text {
  font-size: var(--t-s);
  fill: var(--muted);
}
.count {
  font-weight: 700;
  fill: #1a1620;
}
.face {
  cursor: pointer;
  outline-offset: 2px;
}
.face:focus-visible {
  outline: 3px solid var(--focus);
}
.face path {
  fill: none;
  stroke-linecap: round;
}
.touch {
  stroke: transparent;
  stroke-width: 26;
}
.line {
  stroke: #fff4ec;
  stroke-width: 8;
  paint-order: stroke;
  filter: drop-shadow(0 0 1px #241a18);
}
.coated .line {
  stroke: #a4502f;
  stroke-dasharray: 2 6;
}
.off .line {
  stroke: var(--muted);
  stroke-width: 2;
  stroke-dasharray: 5 6;
  filter: none;
}
.tied-back .line {
  stroke-dasharray: 16 5;
}
</style>
