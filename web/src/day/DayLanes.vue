<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, ref, useTemplateRef } from 'vue'
import type { Schemas } from '../api/client'
import PieceBadge from '../draw/PieceBadge.vue'
import { heaped } from '../draw/heap'
import { usePreferences } from '../app/preferences'
import { dayAndTime, shortDay, time } from '../kit/units'
import { carryAlong, type Pin } from './carry'
import { clockOf } from './clock'
import HandsLane from './HandsLane.vue'
import type { Day } from './useDay'

/** A day drawn: a lane a piece, one for hands and one a cooker; grains where a piece comes off; supper is dragged. */
const props = defineProps<{ day: Day }>()
const emit = defineEmits<{
  serve: [at: string]
  pin: [pin: Pin]
}>()
const { show } = usePreferences()

const GRAIN = 4.2
/** A hold is made longer or shorter by so much from the keyboard. */
const HOLD_MS = 900_000
const { width } = useElementSize(useTemplateRef<HTMLElement>('track'))
const wide = computed(() => Math.max(320, width.value || 900))
const ms = (iso: string) => Date.parse(iso)
const dragged = ref<number | null>(null)

const clock = computed(() => {
  const { day, nights, zone } = props.day
  const last = Math.max(ms(day.serve_at), ...day.lanes.flatMap((lane) => lane.off.map((off) => (off ? ms(off) : 0))))
  const spans = nights.map((night) => ({ from: ms(night.begins_at), to: ms(night.ends_at) }))
  const first = ms(day.begins_at)
  // room for what is written at its first hour
  return clockOf(first - (last - first) / 60, last + 50 * 60_000, spans, wide.value, zone)
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
const clashing = computed(
  () => new Set(props.day.day.clashes.flatMap((clash) => clash.blocks.map(([lane, key]) => `${lane} ${key}`))),
)

const drag = (start: PointerEvent) =>
  carryAlong(
    start,
    clock.value,
    wide.value,
    x(props.day.day.serve_at),
    (to) => (dragged.value = to),
    (at) => {
      if (at !== ms(props.day.day.serve_at)) emit('serve', new Date(at).toISOString())
    },
  )
/** A hold begins with the task before it: pulled to an earlier time it is longer, to a later one shorter. */
const carried = ref<{ lane: string; key: string; x: number } | null>(null)
type Lane = (typeof lanes.value)[number]
function begun(lane: Lane, block: Block) {
  const task = block.key.endsWith('.waits') && all(lane.letter).find((one) => `${one.key}.waits` === block.key)
  return task && !task.done && lane.letter !== 'way' && ['cold hold', 'bench', 'hot'].includes(block.kind) ? task : null
}
const all = (letter: string) => props.day.day.lanes.find((lane) => lane.letter === letter)?.blocks ?? []
function hold(lane: Lane, block: Block, by: number) {
  const task = begun(lane, block)
  if (!task) return
  emit('pin', { letter: lane.letter, key: task.key, begins_at: new Date(ms(task.begins_at) + by).toISOString() })
}
const pull = (lane: Lane, block: Block, start: PointerEvent) =>
  carryAlong(
    start,
    clock.value,
    wide.value,
    x(block.begins_at),
    (to) => (carried.value = to === null ? null : { lane: lane.letter, key: block.key, x: to }),
    (at) => hold(lane, block, at - ms(block.begins_at)),
  )
const placed = (lane: Lane, block: Block) => {
  const to = carried.value
  if (to?.lane !== lane.letter || to.key !== block.key) return shown(block)
  return { left: `${to.x}px`, width: `${Math.max(3, x(block.ends_at) - to.x - 1)}px` }
}
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
        <HandsLane :day="day" :clock="clock" :wide="wide" :clashing="clashing" @pin="emit('pin', $event)" />
        <div v-for="lane in lanes" :key="lane.letter" class="lane">
          <template v-for="block in lane.blocks" :key="block.key">
            <button
              v-if="begun(lane, block)"
              type="button"
              class="block held"
              :class="block.kind.replace(' ', '-')"
              :style="placed(lane, block)"
              :title="told(block)"
              :aria-label="`${lane.piece?.name ?? lane.letter}: ${told(block)}: drag it, or use the arrow keys, and it begins sooner or later`"
              @pointerdown.prevent="pull(lane, block, $event)"
              @keydown.left.prevent="hold(lane, block, -HOLD_MS)"
              @keydown.right.prevent="hold(lane, block, HOLD_MS)"
            >
              {{ fits(block) }}
            </button>
            <span
              v-else
              class="block"
              :class="[
                block.kind.replace(' ', '-'),
                { clash: clashing.has(`${lane.letter} ${block.key}`), busy: block.hands },
              ]"
              :style="shown(block)"
              :title="told(block)"
              >{{ fits(block) }}</span
            >
          </template>
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
