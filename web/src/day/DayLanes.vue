<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, ref, useTemplateRef } from 'vue'
import type { Schemas } from '../api/client'
import PieceBadge from '../draw/PieceBadge.vue'
import { heaped } from '../draw/heap'
import { usePreferences } from '../app/preferences'
import { dayAndTime, shortDay, time } from '../kit/units'
import { clockOf, uncrowded } from './clock'
import type { Day } from './useDay'

/** A day drawn: a lane a piece, one for hands and one a cooker; grains where a piece comes off; supper is dragged. */
const props = defineProps<{ day: Day }>()
const emit = defineEmits<{
  serve: [at: string]
  pin: [pin: { letter: string; key: string; begins_at: string | null }]
}>()
const { show } = usePreferences()

const GRAIN = 4.2
const { width } = useElementSize(useTemplateRef<HTMLElement>('track'))
const wide = computed(() => Math.max(320, width.value || 900))
const ms = (iso: string) => Date.parse(iso)
const dragged = ref<number | null>(null)

const clock = computed(() => {
  const { day, nights, zone } = props.day
  const last = Math.max(ms(day.serve_at), ...day.lanes.flatMap((lane) => lane.off.map((off) => (off ? ms(off) : 0))))
  const spans = nights.map((night) => ({ from: ms(night.begins_at), to: ms(night.ends_at) }))
  return clockOf(ms(day.begins_at), last + 50 * 60_000, spans, wide.value, zone)
})
const x = (iso: string) => clock.value.x(ms(iso))
const pole = computed(() => dragged.value ?? x(props.day.day.serve_at))
const now = computed(() => {
  const at = ms(props.day.now)
  return at > ms(props.day.day.begins_at) && at < ms(props.day.day.serve_at) ? clock.value.x(at) : null
})
type Block = Schemas['Block']
const shown = (block: Block) => ({
  left: `${x(block.begins_at)}px`,
  width: `${Math.max(3, x(block.ends_at) - x(block.begins_at) - 1)}px`,
})
const room = (block: Block) => (x(block.ends_at) - x(block.begins_at) - 12) / 7
/** What fits into a block of what it says; the whole of it is told on touching it. */
const fits = (block: Block) => {
  const first = block.kind === 'wrapped' ? 'wrapped' : (block.says.split(',')[0] ?? '')
  return [block.says, first, block.kind].find((text) => text.length <= room(block)) ?? ''
}
const told = (block: Block) => `${block.says}, ${dayAndTime(block.begins_at)} to ${time(block.ends_at)}`
const lanes = computed(() =>
  props.day.day.lanes
    .filter((lane) => lane.blocks.length)
    .map((lane) => ({
      ...lane,
      piece: props.day.pieces.find((piece) => piece.letter === lane.letter),
      grains: heaped(
        (lane.off_low === lane.off_high ? [] : lane.off).flatMap((off) => (off ? [x(off)] : [])),
        GRAIN,
      ),
      blocks: lane.blocks.filter(
        (block) =>
          block.kind !== 'beside' &&
          (!block.hands || block.kind === 'fire' || x(block.ends_at) - x(block.begins_at) > 5),
      ),
    })),
)
const hands = computed(() => {
  const busy = props.day.day.lanes.flatMap((lane) =>
    lane.blocks
      .filter((block) => block.hands)
      .map((block) => ({ ...block, at: `${lane.letter} ${block.key}`, letter: lane.letter })),
  )
  return busy.sort((a, b) => ms(a.begins_at) - ms(b.begins_at))
})
/** What hands do, in words where there is room for them; to light the fire first of all. */
const labels = computed(() => {
  const inOrder = [...hands.value].sort((a, b) => Number(b.kind === 'light') - Number(a.kind === 'light'))
  return uncrowded(
    inOrder.map((block) => {
      const says = (block.says.split(/ with |[,:]/)[0] ?? '').toLowerCase()
      const text = block.letter === 'way' ? says : `${says} ${block.letter}`
      const long = text.length * 6.6 + 6
      return { key: block.at, text, at: Math.min(x(block.begins_at), wide.value - long), wide: long }
    }),
  )
})
const clashing = computed(
  () => new Set(props.day.day.clashes.flatMap((clash) => clash.blocks.map(([lane, key]) => `${lane} ${key}`))),
)

/** Something is dragged along the axis and dropped on five minutes. */
function draggedTo(start: PointerEvent, moves: (x: number | null) => void, drop: (at: number) => void) {
  const box = (start.currentTarget as HTMLElement).closest('.track')?.getBoundingClientRect()
  if (!box) return
  const place = (event: PointerEvent) => Math.min(wide.value, Math.max(0, event.clientX - box.left))
  const moved = (event: PointerEvent) => moves(place(event))
  const ended = (event: PointerEvent) => {
    window.removeEventListener('pointermove', moved)
    window.removeEventListener('pointerup', ended)
    window.removeEventListener('pointercancel', ended)
    moves(null)
    if (event.type === 'pointerup' && Math.abs(event.clientX - start.clientX) > 3)
      drop(Math.round(clock.value.x.invert(place(event)) / 300_000) * 300_000)
  }
  window.addEventListener('pointermove', moved)
  window.addEventListener('pointerup', ended)
  window.addEventListener('pointercancel', ended)
}
const drag = (start: PointerEvent) =>
  draggedTo(
    start,
    (to) => (dragged.value = to),
    (at) => {
      if (at !== ms(props.day.day.serve_at)) emit('serve', new Date(at).toISOString())
    },
  )
type Busy = (typeof hands.value)[number]
const carried = ref<{ at: string; x: number } | null>(null)
const movable = (block: Busy) => block.kind !== 'beside' && !block.done && block.letter !== 'way'
function pinTo(block: Busy, at: number | null) {
  emit('pin', { letter: block.letter, key: block.key, begins_at: at === null ? null : new Date(at).toISOString() })
}
function carry(block: Busy, start: PointerEvent) {
  if (!movable(block)) return
  draggedTo(
    start,
    (to) => (carried.value = to === null ? null : { at: block.at, x: to }),
    (at) => pinTo(block, at),
  )
}
const nudge = (block: Busy, by: number) => movable(block) && pinTo(block, ms(block.begins_at) + by * 300_000)
const busyAt = (block: Busy) =>
  carried.value?.at === block.at ? { ...shown(block), left: `${carried.value.x}px` } : shown(block)
const moves = (block: Busy) =>
  movable(block) ? ': drag it, or use the arrow keys; Delete lets it be when it fits' : ''
const burning = (burns: Schemas['Burns']) => show.value.temperature((burns.low_c + burns.high_c) / 2)
</script>

<template>
  <section class="plate lanes" aria-label="The day, drawn">
    <div class="names" aria-hidden="true">
      <div class="axis" />
      <div class="name">
        <b>Hands</b><small>{{ day.people === 1 ? 'one pair' : `${day.people} pairs` }}</small>
      </div>
      <div v-for="lane in lanes" :key="lane.letter" class="name piece">
        <PieceBadge v-if="!lane.piece?.side && lane.piece" :letter="lane.letter" /><span
          ><b>{{ lane.piece?.name ?? 'The way' }}</b
          ><small>{{ lane.piece?.about ?? 'by cool box' }}</small></span
        >
      </div>
      <div v-for="cooker in day.day.cookers" :key="cooker.key" class="name">
        <b>{{ cooker.says }}</b>
        <small>{{ Math.round(Math.max(...cooker.burns.map((burns) => burns.share)) * 100) }} % of its grate</small>
      </div>
    </div>
    <div class="scroll">
      <div ref="track" class="track">
        <div class="axis">
          <template v-for="tick in clock.ticks" :key="tick.at">
            <span v-if="tick.day" class="dayname" :style="{ left: `${tick.at}px` }">{{
              shortDay(`${tick.day}T12:00:00Z`)
            }}</span>
            <span class="tick" :style="{ left: `${tick.at}px` }">{{ tick.text }}</span>
          </template>
        </div>
        <div v-for="tick in clock.ticks" :key="tick.at" class="line" :style="{ left: `${tick.at}px` }" />
        <div
          v-for="night in clock.nights"
          :key="night.from"
          class="night"
          :style="{ left: `${clock.x(night.from)}px`, width: `${clock.x(night.to) - clock.x(night.from)}px` }"
        >
          <span>asleep</span>
        </div>
        <div class="lane hands">
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
            :style="busyAt(block)"
            :title="told(block)"
            :aria-label="`${block.letter}: ${told(block)}${moves(block)}`"
            @pointerdown.prevent="carry(block, $event)"
            @keydown.left.prevent="nudge(block, -1)"
            @keydown.right.prevent="nudge(block, 1)"
            @keydown.delete.prevent="block.pinned && pinTo(block, null)"
          />
          <small v-for="label in labels" :key="label.key" :style="{ left: `${label.at}px` }">{{ label.text }}</small>
        </div>
        <div v-for="lane in lanes" :key="lane.letter" class="lane">
          <span
            v-for="block in lane.blocks"
            :key="block.key"
            class="block"
            :class="[
              block.kind.replace(' ', '-'),
              { clash: clashing.has(`${lane.letter} ${block.key}`), busy: block.hands },
            ]"
            :style="shown(block)"
            :title="told(block)"
            >{{ fits(block) }}</span
          >
          <svg v-if="lane.grains.length" class="grains" :width="wide" height="34" aria-hidden="true">
            <circle v-for="(grain, n) in lane.grains" :key="n" :cx="grain.x" :cy="34 - grain.y" :r="GRAIN" />
          </svg>
        </div>
        <div v-for="cooker in day.day.cookers" :key="cooker.key" class="lane cooker">
          <span
            class="ready"
            :style="{ left: `${x(cooker.lit_at)}px`, width: `${x(cooker.ready_at) - x(cooker.lit_at)}px` }"
            :title="`${time(cooker.lit_at)} lit`"
          />
          <span
            v-for="burns in cooker.burns"
            :key="burns.begins_at"
            class="burns"
            :style="{
              left: `${x(burns.begins_at)}px`,
              width: `${Math.max(2, x(burns.ends_at) - x(burns.begins_at))}px`,
            }"
            :title="`${burning(burns)}, ${dayAndTime(burns.begins_at)} to ${time(burns.ends_at)}`"
            ><small v-if="x(burns.ends_at) - x(burns.begins_at) > 48">{{ burning(burns) }}</small></span
          >
        </div>
        <div v-if="now !== null" class="now" :style="{ left: `${now}px` }"><span>now</span></div>
        <button
          type="button"
          class="pole"
          :style="{ left: `${pole}px` }"
          :aria-label="`Supper at ${time(day.day.serve_at)}: drag it, or use the arrow keys, and the day moves with it`"
          @pointerdown.prevent="drag"
          @keydown.left.prevent="emit('serve', new Date(ms(day.day.serve_at) - 900_000).toISOString())"
          @keydown.right.prevent="emit('serve', new Date(ms(day.day.serve_at) + 900_000).toISOString())"
        >
          <i />
        </button>
      </div>
    </div>
  </section>
</template>

<style scoped src="./lanes.css"></style>
