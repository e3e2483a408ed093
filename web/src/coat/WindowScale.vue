<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../api/client'
import { useCatalogue } from '../api/catalogue'
import { duration } from '../kit/units'
import Why from '../kit/Why.vue'

/** Both schools' windows on one scale of time, with the cook's own hold on it, dragged or set to either school's end. */
const props = defineProps<{
  window: Schemas['Window']
  standing: string
  tooLong: boolean
  holdS: number
  reach: Schemas['Figure'] | null
}>()
const { catalogue } = useCatalogue()
const source = computed(() => catalogue.value?.sources[props.window.limits.source]?.title)
const emit = defineEmits<{ take: [hold: string] }>()

const DAY = 1440
const END = DAY * 1.15
// minutes and hours must both be readable on one line
const at = (minutes: number) => Math.sqrt(Math.min(minutes, END) / END) * 100
const schools = computed(() => [
  { name: 'cautious', low: props.window.limits.cautious_low_min, high: props.window.limits.cautious_high_min },
  { name: 'long', low: props.window.limits.long_low_min, high: props.window.limits.long_high_min },
])
const ticks = [30, 120, 240, 480, 960, 1440]
const minutes = computed(() => props.holdS / 60)
/** Times are set in steps that people say: 5 minutes within the hour, half hours from four hours on. */
const step = (time: number) => (time < 60 ? 5 : time < 240 ? 15 : 30)
const say = (time: number) => emit('take', duration(Math.min(END, Math.max(5, time)) * 60))
const place = computed({
  get: () => at(minutes.value),
  set: (percent) => {
    const raw = (percent / 100) ** 2 * END
    say(Math.round(raw / step(raw)) * step(raw))
  },
})
function keyed(event: KeyboardEvent) {
  const way = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 }[event.key]
  if (!way) return
  event.preventDefault()
  const by = step(way > 0 ? minutes.value : minutes.value - 1)
  say((Math[way > 0 ? 'floor' : 'ceil'](minutes.value / by) + way) * by)
}
</script>

<template>
  <div class="window" role="group" aria-label="How long it may work">
    <p :class="{ too: tooLong }">
      <b>{{ duration(holdS) }}</b> is {{ standing }}.
    </p>
    <div class="scale">
      <div v-for="school in schools" :key="school.name" class="track" aria-hidden="true">
        <i
          :style="{ left: `${at(school.low)}%`, width: `${at(school.high) - at(school.low)}%` }"
          :class="school.name"
        />
      </div>
      <b class="mine" :class="{ too: tooLong }" :style="{ left: `${at(minutes)}%` }" aria-hidden="true" />
      <label>
        <span class="sr-only">Your own time</span>
        <input
          v-model.number="place"
          type="range"
          min="0"
          max="100"
          step="0.2"
          :aria-valuetext="duration(holdS)"
          @keydown="keyed"
        />
      </label>
      <span v-for="tick in ticks" :key="tick" class="tick" :style="{ left: `${at(tick)}%` }" aria-hidden="true">{{
        duration(tick * 60)
      }}</span>
    </div>
    <p class="legend">
      <button
        v-for="school in schools"
        :key="school.name"
        type="button"
        @click="emit('take', duration(school.high * 60))"
      >
        <i :class="school.name" /> {{ school.name }} {{ duration(school.low * 60) }} to
        <b>{{ duration(school.high * 60) }}</b>
      </button>
    </p>
    <p class="muted">
      {{ window.acid_class === 'none' ? 'No acid' : `Acid class ${window.acid_class}` }}: {{ window.because }}. The meat
      is {{ window.thickness }} here. {{ window.limits.reason }} ({{ source }})
    </p>
    <p v-if="window.weaker && tooLong">
      Or thin it: {{ window.weaker.water_g.toFixed(0) }} g of water to 100 g makes it {{ window.weaker.acid_class }},
      which may work {{ duration(window.weaker.long_high_min * 60) }}.
    </p>
    <p v-if="reach" class="muted">
      In that time salt reaches about <Why :figure="reach" of="Reach of the salt">{{ reach.value.toFixed(1) }} mm</Why>;
      the aromatics stay at the surface.
    </p>
  </div>
</template>

<style scoped>
.window {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--s-6);
}
p {
  margin: 0;
  font-size: var(--t-s);
}
.too {
  color: var(--caution);
}
.scale {
  position: relative;
  height: 58px;
  margin: var(--s-8) var(--s-14) 0 0;
}
.track {
  position: relative;
  height: 10px;
  background: var(--tint);
  border-radius: 5px;
  margin-bottom: var(--s-6);
}
.track i {
  position: absolute;
  height: 100%;
  border-radius: 5px;
}
i.cautious {
  background: var(--cobalt);
}
i.long {
  background: repeating-linear-gradient(115deg, var(--cobalt) 0 4px, var(--line-strong) 4px 8px);
}
.mine {
  position: absolute;
  top: -4px;
  height: 33px;
  width: 6px;
  margin-left: -3px;
  border-radius: 3px;
  background: var(--ink);
}
.mine.too {
  background: var(--caution);
}
.scale input {
  position: absolute;
  left: -8px;
  right: -8px;
  top: -6px;
  width: calc(100% + 16px);
  height: 38px;
  opacity: 0;
  cursor: ew-resize;
  margin: 0;
}
.scale:focus-within {
  outline: 3px solid var(--focus);
  outline-offset: 4px;
  border-radius: 6px;
}
.tick {
  position: absolute;
  top: 34px;
  transform: translateX(-50%);
  font-size: var(--t-xs);
  color: var(--muted);
  white-space: nowrap;
}
.legend {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s-4) var(--s-14);
}
.legend button {
  font-size: var(--t-xs);
  color: var(--link);
  min-height: 32px;
}
.legend b {
  text-decoration: underline;
  text-underline-offset: 3px;
}
.legend i {
  display: inline-block;
  width: 18px;
  height: 9px;
  border-radius: 4px;
}
@media (max-width: 720px) {
  .legend button {
    min-height: 44px;
  }
}
</style>
