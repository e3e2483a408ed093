<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, ref, useTemplateRef } from 'vue'
import type { Band } from '../draw/grains'
import GrainStrip from '../draw/GrainStrip.vue'
import { sure } from '../kit/sure'

/** The blend on the bench as a band of its own grains, with borders to drag, and the earlier revision under it. */
interface Stretch {
  name: string
  /** The name without its grind, where the whole does not fit. */
  short: string
  share: number
  locked: boolean
  bands: Band[]
}
const props = defineProps<{ stretches: Stretch[]; ghost: Band[]; ghostOf: string }>()
const emit = defineEmits<{ border: [at: number, share: number, dragging: boolean]; grab: []; drop: [] }>()

const box = useTemplateRef('box')
const { width } = useElementSize(box)
const bands = computed(() => props.stretches.flatMap((stretch) => stretch.bands))

/** Where each stretch begins, as a share of the whole. */
const begins = computed(() => {
  let sum = 0
  return props.stretches.map((stretch) => {
    const at = sum
    sum += stretch.share
    return at
  })
})
const borders = computed(() =>
  props.stretches.slice(0, -1).map((stretch, at) => {
    const next = sure(props.stretches[at + 1])
    return {
      at,
      left: sure(begins.value[at + 1]) * 100,
      name: `Border between ${stretch.name} and ${next.name}`,
      share: stretch.share,
      both: stretch.share + next.share,
      held: stretch.locked || next.locked,
    }
  }),
)

/** A name is written where it fits, without its grind where it must; the share wherever a number does. */
const label = (stretch: Stretch) =>
  [stretch.name, stretch.short].find((name) => stretch.share * width.value > name.length * 7.1 + 46) ?? ''
const dragged = ref<number | null>(null)

function drag(event: PointerEvent, at: number) {
  if (dragged.value !== at || !box.value) return
  const frame = box.value.getBoundingClientRect()
  emit('border', at, (event.clientX - frame.left) / frame.width - sure(begins.value[at]), true)
}
function grab(event: PointerEvent, at: number) {
  dragged.value = at
  emit('grab')
  ;(event.currentTarget as HTMLElement).setPointerCapture(event.pointerId)
}
function drop() {
  if (dragged.value === null) return
  dragged.value = null
  emit('drop')
}
const STEP = 0.01
function keyed(event: KeyboardEvent, at: number, share: number) {
  const by = { ArrowLeft: -STEP, ArrowRight: STEP }[event.key]
  if (by === undefined) return
  event.preventDefault()
  emit('border', at, share + (event.shiftKey ? by * 5 : by), false)
}
/** What lies under the pointer or the finger, by name: a narrow band has no room for it. */
const under = ref(-1)
function point(event: PointerEvent) {
  const from = box.value?.getBoundingClientRect()
  if (!from) return
  let left = (event.clientX - from.left) / from.width
  under.value = props.stretches.findIndex((stretch) => (left -= stretch.share) < 0)
}
function leave(event: PointerEvent) {
  if (event.pointerType === 'mouse') under.value = -1
}
const told = computed(() => {
  const found = props.stretches[under.value]
  if (!found) return null
  const before = props.stretches.slice(0, under.value).reduce((sum, one) => sum + one.share, 0)
  return {
    at: (before + found.share / 2) * 100,
    percent: (found.share * 100).toFixed(1),
    name: label(found) || found.name,
  }
})
</script>

<template>
  <div class="blend-strip">
    <div ref="box" class="band" @pointermove="point" @pointerdown="point" @pointerleave="leave">
      <GrainStrip :bands="bands" :height="104" />
      <template v-for="border in borders" :key="border.at">
        <button
          v-if="!border.held"
          type="button"
          class="border"
          :class="{ dragged: dragged === border.at }"
          role="slider"
          :style="{ left: `${border.left}%` }"
          :aria-label="border.name"
          :aria-valuenow="Math.round(border.share * 1000) / 10"
          aria-valuemin="0"
          :aria-valuemax="Math.round(border.both * 1000) / 10"
          :aria-valuetext="`${(border.share * 100).toFixed(1)} %`"
          @pointerdown="grab($event, border.at)"
          @pointermove="drag($event, border.at)"
          @pointerup="drop"
          @pointercancel="drop"
          @keydown="keyed($event, border.at, border.share)"
        >
          <i aria-hidden="true" />
        </button>
      </template>
    </div>
    <div class="labels" aria-hidden="true">
      <p v-if="told" class="told" :style="{ left: `${told.at}%` }" :class="{ end: told.at > 60 }">
        <b>{{ told.percent }} %</b> {{ told.name }}
      </p>
      <div v-for="(stretch, at) in stretches" :key="at" class="label" :style="{ width: `${stretch.share * 100}%` }">
        <b v-if="stretch.share * width > 36">{{ (stretch.share * 100).toFixed(0) }}%</b>
        <span>&nbsp;{{ label(stretch) }}</span>
      </div>
    </div>
    <div v-if="ghost.length" class="ghost">
      <GrainStrip :bands="ghost" :height="12" :label="`${ghostOf}, by mass`" />
      <span class="muted">{{ ghostOf }}</span>
    </div>
  </div>
</template>

<style scoped>
.band {
  position: relative;
}
.border {
  position: absolute;
  top: 0;
  bottom: 0;
  width: 28px;
  margin-left: -14px;
  padding: 0;
  cursor: col-resize;
  touch-action: none;
  display: grid;
  place-items: center;
}
.border i {
  width: 7px;
  height: 34px;
  border-radius: 4px;
  background: #fff;
  border: 1.5px solid var(--rim);
  opacity: 0.55;
  transition: opacity var(--quick);
}
.v-theme--iron .border i {
  background: #20242b;
}
.border:hover i,
.border.dragged i,
.border:focus-visible i {
  opacity: 1;
  height: 60px;
}
.told {
  position: absolute;
  margin: 0;
  padding: 0 var(--s-6);
  background: var(--ink);
  color: var(--plate);
  border-radius: 6px;
  white-space: nowrap;
  z-index: 2;
}
.told b {
  color: inherit;
}
.told.end {
  transform: translateX(-100%);
}
.labels {
  position: relative;
  display: flex;
  font-size: var(--t-xs);
  color: var(--muted);
  padding-top: var(--s-4);
  height: 23px;
}
.label {
  overflow: hidden;
  white-space: nowrap;
  padding-left: var(--s-4);
}
.label b {
  color: var(--ink);
}
.ghost {
  display: grid;
  gap: 1px;
  font-size: var(--t-xs);
  margin-top: var(--s-2);
}
.ghost :deep(.frame) {
  opacity: 0.8;
}
.ghost span {
  padding-left: var(--s-4);
}
</style>
