<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../api/client'
import { duration } from '../ui/units'
import Why from '../ui/Why.vue'

/** Both schools' windows on one scale of time, with the cook's own hold on it. */
const props = defineProps<{ window: Schemas['WindowOut']; holdMin: number; reach: Schemas['Figure'] | null }>()

const DAY = 1440
// minutes and hours must both be readable on one line
const at = (minutes: number) => Math.sqrt(Math.min(minutes, DAY * 1.15) / (DAY * 1.15)) * 100
const schools = computed(() => [
  { name: 'cautious', low: props.window.cautious_low_min, high: props.window.cautious_high_min },
  { name: 'long', low: props.window.long_low_min, high: props.window.long_high_min },
])
const ticks = [30, 120, 240, 480, 960, 1440]
const standing = computed(() => {
  const { cautious_low_min, cautious_high_min, long_high_min } = props.window
  if (props.holdMin < cautious_low_min) return 'shorter than either school'
  if (props.holdMin <= cautious_high_min) return 'inside the cautious school'
  if (props.holdMin <= long_high_min) return 'inside the long school only'
  return 'longer than either school'
})
</script>

<template>
  <div class="window">
    <p>
      <b>{{ duration(holdMin * 60) }}</b> is {{ standing }}.
      <span class="muted"
        >Acid class {{ window.acid_class }}: {{ window.because }}. {{ window.reason }} ({{ window.mark }})</span
      >
    </p>
    <div class="scale" aria-hidden="true">
      <div v-for="school in schools" :key="school.name" class="track">
        <i
          :style="{ left: `${at(school.low)}%`, width: `${at(school.high) - at(school.low)}%` }"
          :class="school.name"
        />
      </div>
      <b class="mine" :style="{ left: `${at(holdMin)}%` }" />
      <span v-for="tick in ticks" :key="tick" class="tick" :style="{ left: `${at(tick)}%` }">{{
        duration(tick * 60)
      }}</span>
    </div>
    <p class="legend muted">
      <span
        ><i class="cautious" /> cautious {{ duration(window.cautious_low_min * 60) }} to
        {{ duration(window.cautious_high_min * 60) }}</span
      >
      <span
        ><i class="long" /> long {{ duration(window.long_low_min * 60) }} to
        {{ duration(window.long_high_min * 60) }}</span
      >
    </p>
    <p v-if="reach" class="muted">
      In that time salt reaches about <Why :figure="reach" of="Reach of the salt">{{ reach.value.toFixed(1) }} mm</Why>;
      the aromatics stay at the surface.
    </p>
  </div>
</template>

<style scoped>
p {
  margin: 0;
  font-size: 14px;
}
.scale {
  position: relative;
  height: 56px;
  margin: 10px 14px 4px 0;
}
.track {
  position: relative;
  height: 10px;
  background: var(--tint);
  border-radius: 5px;
  margin-bottom: 5px;
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
  width: 4px;
  margin-left: -2px;
  border-radius: 2px;
  background: var(--ink);
}
.tick {
  position: absolute;
  top: 32px;
  transform: translateX(-50%);
  font-size: 13px;
  color: var(--muted);
  white-space: nowrap;
}
.legend {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 18px;
  font-size: 13px;
}
.legend i {
  display: inline-block;
  width: 18px;
  height: 9px;
  border-radius: 4px;
}
</style>
