<script setup lang="ts">
import { computed, useTemplateRef } from 'vue'
import { percent } from '../kit/units'

/** Salt as a bar, a part a layer, against the zones people like; the salt wanted is dragged, or moved by keys. */
const props = defineProps<{
  layers: { value: number; colour: string; name: string }[]
  low: number | null
  high: number | null
  full: number
  zones?: { name: string; below_percent: number | null }[]
  aim?: number | null
}>()
const emit = defineEmits<{ aim: [value: number]; hold: []; release: [] }>()
const bar = useTemplateRef('bar')
const at = (value: number) => `${Math.min(100, (value / props.full) * 100)}%`
/** Each zone named in its middle, as far as the bar shows it. */
const named = computed(() => {
  let from = 0
  return (props.zones ?? []).map((zone) => {
    const to = Math.min(props.full, zone.below_percent ?? props.full)
    const found = { name: zone.name, edge: zone.below_percent, middle: (from + to) / 2, wide: to - from }
    from = to
    return found
  })
})
const bounded = (value: number) => Math.min(4, Math.max(0.1, value))
let dragging = false
function drag(event: PointerEvent) {
  const frame = bar.value?.getBoundingClientRect()
  if (dragging && frame) emit('aim', bounded(((event.clientX - frame.left) / frame.width) * props.full))
}
function grab(event: PointerEvent) {
  dragging = true
  emit('hold')
  ;(event.currentTarget as HTMLElement).setPointerCapture(event.pointerId)
}
function drop() {
  if (!dragging) return
  dragging = false
  emit('release')
}
function keyed(event: KeyboardEvent) {
  const by = { ArrowLeft: -0.05, ArrowRight: 0.05 }[event.key]
  if (by === undefined || props.aim == null) return
  event.preventDefault()
  emit('aim', bounded(props.aim + by))
}
</script>

<template>
  <div ref="bar" class="bar" :class="{ named: zones }">
    <i
      v-for="(layer, n) in layers"
      :key="n"
      :style="{ width: at(layer.value), background: layer.colour }"
      :title="`${layer.name}: ${percent(layer.value)}`"
    />
    <template v-for="zone in named" :key="zone.name">
      <span v-if="zone.edge !== null && zone.edge < full" class="edge" :style="{ left: at(zone.edge) }"
        ><em>{{ zone.edge }}</em></span
      >
      <span v-if="zone.wide / full > 0.09" class="zone" :style="{ left: at(zone.middle) }">{{ zone.name }}</span>
    </template>
    <span
      v-if="low !== null && high !== null"
      class="spread"
      :style="{ left: at(low), width: `calc(${at(high)} - ${at(low)})` }"
    />
    <button
      v-if="aim != null"
      type="button"
      class="aim"
      role="slider"
      aria-label="Salt wanted in all"
      aria-valuemin="0.1"
      aria-valuemax="4"
      :aria-valuenow="aim"
      :aria-valuetext="percent(aim)"
      :style="{ left: at(aim) }"
      @pointerdown="grab"
      @pointermove="drag"
      @pointerup="drop"
      @pointercancel="drop"
      @keydown="keyed"
    />
  </div>
</template>

<style scoped>
.bar {
  position: relative;
  height: 12px;
  background: rgb(255 255 255 / 0.16);
  border-radius: 6px;
  display: flex;
}
.named {
  height: 30px;
  margin: var(--s-8) 0 var(--s-24);
}
i {
  height: 100%;
}
i:first-child {
  border-radius: 6px 0 0 6px;
}
.edge {
  position: absolute;
  top: -3px;
  bottom: -3px;
  border-left: 1.5px solid rgb(255 255 255 / 0.75);
}
.edge em {
  position: absolute;
  bottom: -22px;
  transform: translateX(-50%);
  font-style: normal;
  font-size: var(--t-xs);
}
.zone {
  position: absolute;
  bottom: -22px;
  transform: translateX(-50%);
  font-size: var(--t-xs);
  opacity: 0.85;
  white-space: nowrap;
}
.spread {
  position: absolute;
  top: calc(50% - 2px);
  height: 4px;
  background: #fff;
  box-shadow: 0 0 0 1.5px #15255a;
  border-radius: 2px;
}
.aim {
  position: absolute;
  top: -9px;
  bottom: -2px;
  width: 44px;
  margin-left: -22px;
  cursor: ew-resize;
  touch-action: none;
}
.aim::before {
  content: '';
  position: absolute;
  inset: 0 20px;
  background: #ffb454;
  border-radius: 2px;
}
.aim::after {
  content: '';
  position: absolute;
  left: 15px;
  top: -5px;
  border: 7px solid transparent;
  border-top: 9px solid #ffb454;
}
@media (max-width: 720px) {
  /* names have a line of their own where there is no room beside the numbers */
  .named {
    margin-bottom: 44px;
  }
  .zone {
    bottom: -41px;
  }
}
</style>
