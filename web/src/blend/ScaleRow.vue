<script setup lang="ts">
import { computed, useTemplateRef } from 'vue'
import type { Schemas } from '../api/client'
import Field from '../kit/Field.vue'
import { percent } from '../kit/units'
import Why from '../kit/Why.vue'
import { sure } from '../kit/sure'

/** One scale a blend is read on: where it stands, where the earlier revision stood, and a target to drag. */
const props = defineProps<{
  scale: Schemas['Scale']
  ghost: number | null
  ghostOf: string
  target: { low: string; high: string } | null
  aiming: boolean
  errors: { low?: string; high?: string }
}>()
const emit = defineEmits<{ target: [to: { low: string; high: string } | null] }>()

const bar = useTemplateRef('bar')
const place = (value: number) => Math.min(100, Math.max(0, (value / props.scale.full) * 100))
function say(value: number): string {
  const { unit } = props.scale
  if (unit === '%') return percent(value)
  if (unit === 'times') return `${value.toFixed(1)} ×`
  return unit === 'of 10' ? value.toFixed(1) : value.toFixed(2)
}
const ends = computed(() => {
  const number = (text?: string) => (text ? Number.parseFloat(text.replace(',', '.')) : NaN)
  return { low: number(props.target?.low), high: number(props.target?.high) }
})
const exact = computed(() => ends.value.low === ends.value.high)
const flags = computed(() =>
  (['low', 'high'] as const).filter((end) => !Number.isNaN(ends.value[end]) && !(exact.value && end === 'high')),
)
const band = computed(() => {
  if (!props.target || exact.value) return null
  const left = Number.isNaN(ends.value.low) ? 0 : place(ends.value.low)
  const right = Number.isNaN(ends.value.high) ? 100 : place(ends.value.high)
  return { left: `${left}%`, width: `${Math.max(0, right - left)}%` }
})

/** How far it may lie off, where that is wide enough to see; heat is drawn in its own unit, so not here. */
const span = computed(() => ({
  low: props.scale.figure.low ?? props.scale.value,
  high: props.scale.figure.high ?? props.scale.value,
}))
const range = computed(() => {
  if (props.scale.figure.unit !== props.scale.unit) return null
  const left = place(span.value.low)
  const width = place(span.value.high) - left
  return width > 4 ? { left: `${left}%`, width: `${width}%` } : null
})

const sensible = (value: number) => {
  const step = props.scale.full > 30 ? 0.5 : props.scale.full > 5 ? 0.1 : 0.05
  return String(Number((Math.round(value / step) * step).toFixed(2)))
}
function set(end: 'low' | 'high' | 'both', text: string) {
  const now = { low: props.target?.low ?? '', high: props.target?.high ?? '' }
  if (end !== 'high') now.low = text
  if (end !== 'low') now.high = text
  emit('target', now.low || now.high ? now : null)
}
let held: 'low' | 'high' | 'both' = 'both'
function at(event: PointerEvent): string {
  const box = sure(bar.value).getBoundingClientRect()
  const along = Math.min(1, Math.max(0, (event.clientX - box.left) / box.width))
  return sensible(along * props.scale.full)
}
function grab(event: PointerEvent) {
  if (!props.aiming) return
  const flag = (event.target as HTMLElement).closest<HTMLElement>('[data-end]')
  held = flag && !exact.value ? (flag.dataset.end as 'low' | 'high') : 'both'
  sure(bar.value).setPointerCapture(event.pointerId)
  set(held, at(event))
}
function drag(event: PointerEvent) {
  if (props.aiming && sure(bar.value).hasPointerCapture(event.pointerId)) set(held, at(event))
}
</script>

<template>
  <div class="scale" :class="{ aiming }">
    <div class="head">
      <b>{{ scale.label }}</b>
      <template v-if="aiming">
        <Field
          :model-value="target?.low ?? ''"
          :label="`At least ${scale.label.toLowerCase()}`"
          hidden-label
          placeholder="at least"
          :error="errors.low"
          @update:model-value="set('low', $event)"
        />
        <Field
          :model-value="target?.high ?? ''"
          :label="`At most ${scale.label.toLowerCase()}`"
          hidden-label
          placeholder="at most"
          :error="errors.high"
          @update:model-value="set('high', $event)"
        />
      </template>
      <span v-else class="word">{{ scale.word }}</span>
      <span v-if="!aiming && ghost !== null && say(ghost) !== say(scale.value)" class="was muted"
        >was {{ say(ghost) }}</span
      >
      <Why :figure="scale.figure" :of="`How ${scale.label.toLowerCase()} reads`">{{ say(scale.value) }}</Why>
    </div>
    <div ref="bar" class="bar" @pointerdown="grab" @pointermove="drag">
      <i v-if="band" class="band" :style="band" />
      <i v-if="range" class="range" :style="range" :title="`between ${say(span.low)} and ${say(span.high)}`" />
      <i class="fill" :style="{ width: `${place(scale.value)}%` }" />
      <i
        v-if="ghost !== null"
        class="ghost"
        :style="{ left: `${place(ghost)}%` }"
        :title="`${ghostOf}: ${say(ghost)}`"
      />
      <i class="dot" :style="{ left: `${place(scale.value)}%` }" />
      <i
        v-for="end in flags"
        :key="end"
        class="flag"
        :class="end"
        :data-end="end"
        :style="{ left: `${place(ends[end])}%` }"
      />
    </div>
  </div>
</template>

<style scoped>
.head {
  display: flex;
  gap: var(--s-8);
  align-items: baseline;
  line-height: 1.3;
}
.head b {
  flex: none;
}
.word {
  color: var(--muted);
  font-size: var(--t-s);
  margin-right: auto;
}
.was {
  font-size: var(--t-xs);
}
.bar {
  position: relative;
  height: 8px;
  border-radius: 4px;
  background: var(--line);
  margin: var(--s-6) var(--s-8) var(--s-4);
}
.aiming .bar {
  cursor: pointer;
  height: 14px;
  border-radius: 7px;
  touch-action: none;
}
.bar i {
  position: absolute;
  pointer-events: none;
}
.fill {
  inset: 0 auto 0 0;
  border-radius: inherit;
  background: var(--rim);
  opacity: 0.28;
}
.band {
  top: 0;
  bottom: 0;
  background: var(--focus);
  opacity: 0.5;
}
.range {
  top: 1px;
  bottom: 1px;
  border-radius: 3px;
  background: repeating-linear-gradient(90deg, var(--line-strong) 0 2px, transparent 2px 5px);
}
.dot,
.ghost {
  top: 50%;
  width: 14px;
  height: 14px;
  margin: -7px 0 0 -7px;
  border-radius: 50%;
  background: var(--cobalt);
  border: 2px solid var(--plate);
}
.ghost {
  background: var(--plate);
  border: 2px solid var(--line-strong);
}
.bar .flag {
  top: -9px;
  bottom: -3px;
  width: 2px;
  margin-left: -1px;
  background: var(--caution);
  pointer-events: auto;
  cursor: grab;
}
.flag::before {
  content: '';
  position: absolute;
  top: 0;
  left: 2px;
  border: 5px solid transparent;
  border-left: 9px solid var(--caution);
  border-right: 0;
}
.flag.high::before {
  left: auto;
  right: 2px;
  border-left: 0;
  border-right: 9px solid var(--caution);
}
.aiming .head {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 74px 74px 62px;
  align-items: start;
}
.aiming .head > b,
.aiming .head > .why {
  line-height: 32px;
}
.aiming .head > .why {
  text-align: right;
}
.aiming .head :deep(input) {
  min-height: 32px;
  padding: var(--s-2) var(--s-8);
  font-size: var(--t-s);
}
@media (max-width: 720px) {
  .aiming .head :deep(input) {
    min-height: 44px;
  }
}
</style>
