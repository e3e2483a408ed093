<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '../api/client'
import { dayAndTime, time } from '../kit/units'
import { carryAlong, nudged, type Clock, type Pin } from './carry'
import { uncrowded } from './clock'
import { shortly, type Day } from './useDay'

/** What hands do all day, of every lane: a block each, dragged or moved by the arrow keys. */
const props = defineProps<{ day: Day; clock: Clock; wide: number; clashing: Set<string> }>()
const emit = defineEmits<{ pin: [pin: Pin] }>()

type Block = Schemas['Block']
type Busy = Block & { at: string; letter: string }
const x = (iso: string) => props.clock.x(Date.parse(iso))
const hands = computed<Busy[]>(() => {
  const busy = props.day.day.lanes.flatMap((lane) =>
    lane.blocks
      .filter((block) => block.hands)
      .map((block) => ({ ...block, at: `${lane.letter} ${block.key}`, letter: lane.letter })),
  )
  return busy.sort((a, b) => Date.parse(a.begins_at) - Date.parse(b.begins_at))
})
/** What hands do, in words where there is room for them; to light the fire first of all. */
const labels = computed(() => {
  const inOrder = [...hands.value].sort((a, b) => Number(b.kind === 'light') - Number(a.kind === 'light'))
  return uncrowded(
    inOrder.map((block) => {
      const says = (block.says.split(/ with |[,:]/)[0] ?? '').toLowerCase()
      const text = [says, shortly(props.day, block.letter)].filter(Boolean).join(' ')
      const long = text.length * 6.6 + 6
      return { key: block.at, text, at: Math.min(x(block.begins_at), props.wide - long), wide: long }
    }),
  )
})
const carried = ref<{ at: string; x: number } | null>(null)
const movable = (block: Busy) => block.kind !== 'beside' && !block.done && block.letter !== 'way'
function pinTo(block: Busy, at: number | null) {
  emit('pin', { letter: block.letter, key: block.key, begins_at: at === null ? null : new Date(at).toISOString() })
}
function carry(block: Busy, start: PointerEvent) {
  if (!movable(block)) return
  carryAlong(
    start,
    props.clock,
    props.wide,
    x(block.begins_at),
    (to) => (carried.value = to === null ? null : { at: block.at, x: to }),
    (at) => pinTo(block, at),
  )
}
const nudge = (block: Busy, by: number) => movable(block) && pinTo(block, nudged(block.begins_at, by))
const shown = (block: Busy) => ({
  left: `${carried.value?.at === block.at ? carried.value.x : x(block.begins_at)}px`,
  width: `${Math.max(3, x(block.ends_at) - x(block.begins_at) - 1)}px`,
})
const told = (block: Busy) => `${block.says}, ${dayAndTime(block.begins_at)} to ${time(block.ends_at)}`
const moves = (block: Busy) =>
  movable(block) ? ': drag it, or use the arrow keys; Delete lets it be when it fits' : ''
</script>

<template>
  <div class="hands">
    <button
      v-for="block in hands"
      :key="block.at"
      type="button"
      class="busy-at"
      :class="{
        clash: clashing.has(block.at),
        pinned: block.pinned,
        over: block.done,
        beside: block.kind === 'beside',
      }"
      :style="shown(block)"
      :title="told(block)"
      :aria-label="`${shortly(day, block.letter) || 'The way'}: ${told(block)}${moves(block)}`"
      @pointerdown.prevent="carry(block, $event)"
      @keydown.left.prevent="nudge(block, -1)"
      @keydown.right.prevent="nudge(block, 1)"
      @keydown.delete.prevent="block.pinned && pinTo(block, null)"
    />
    <small v-for="label in labels" :key="label.key" :style="{ left: `${label.at}px` }">{{ label.text }}</small>
  </div>
</template>

<style scoped>
.hands {
  position: relative;
  height: var(--row);
}
.busy-at {
  position: absolute;
  top: 12px;
  height: 18px;
  min-width: 6px;
  padding: 0;
  border-radius: 7px;
  background: var(--cobalt);
  cursor: grab;
  touch-action: none;
}
.busy-at.beside {
  top: 16px;
  height: 10px;
  opacity: 0.7;
  cursor: default;
}
.busy-at.over {
  background: var(--line-strong);
  cursor: default;
}
.busy-at.pinned {
  box-shadow:
    0 0 0 2px var(--plate),
    0 0 0 4px var(--cobalt);
}
.busy-at.clash {
  background: var(--stop);
}
small {
  position: absolute;
  top: 32px;
  font-size: var(--t-xs);
  color: var(--muted);
  white-space: nowrap;
}
</style>
