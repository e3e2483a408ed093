<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../api/client'
import { usePreferences } from '../app/preferences'
import { coatHere } from '../coat/useCoat'
import { duration } from '../kit/units'
import Why from '../kit/Why.vue'
import { heatHere } from './useHeat'

/** What the fire does besides: carry-over, loss, feel, smoke, the clocks; and what would be otherwise. */
defineProps<{ reading: Schemas['HeatReading'] }>()
const { show } = usePreferences()
const coat = coatHere()
const { otherwise } = heatHere()
const off = computed(() => coat.piece.value?.endpoint ?? '')
const shift = (seconds: number) => `${duration(Math.abs(seconds))} ${seconds >= 0 ? 'sooner' : 'later'}`
</script>

<template>
  <ul class="facts">
    <li>
      <b
        ><Why :figure="reading.carry" of="Carry-over">{{ show.difference(reading.carry.value) }}</Why></b
      >
      more at rest, to {{ show.temperature(reading.peak_c)
      }}<template v-if="reading.pull_c !== null"
        >; for {{ off }} take it off at <b>{{ show.temperature(reading.pull_c) }}</b></template
      >
    </li>
    <li>
      <b
        ><Why :figure="reading.loss" of="Loss on the fire">{{ reading.loss.value.toFixed(0) }} %</Why></b
      >
      lost;
      <Why :figure="reading.cooked" of="Left to eat">{{ show.mass(reading.cooked.value) }}</Why> to eat
    </li>
    <li v-if="reading.feel">
      under a probe it feels
      <b
        ><Why :figure="reading.dose" of="Tender dose">{{ reading.feel }}</Why></b
      >
    </li>
    <li v-if="reading.smoke_wet_s > 0">
      smoke takes for <b>{{ duration(reading.smoke_wet_s) }}</b>, its wet time
    </li>
    <li>
      centre <b>{{ duration(reading.danger_s) }}</b> between {{ show.temperature(4) }} and {{ show.temperature(60) }};
      surface above {{ show.temperature(60) }}
      {{ reading.surface_safe_s === null ? 'never' : `after ${duration(reading.surface_safe_s)}` }}
    </li>
    <li v-if="reading.credit">
      endpoint credit
      <b
        ><Why :figure="reading.credit" of="Endpoint credit">{{
          reading.credit.value >= 1 ? 'whole' : `${(reading.credit.value * 100).toFixed(0)} %`
        }}</Why></b
      >, for information
    </li>
    <li>
      usual times of this cut:
      <b
        ><Why :figure="reading.factor" of="Time factor">{{ reading.factor.value.toFixed(2) }} ×</Why></b
      >
      what physics says
    </li>
  </ul>
  <ul v-if="otherwise?.length" class="otherwise" aria-label="What if">
    <li v-for="one in otherwise" :key="one.says">
      <b>{{ one.says }}:</b>{{ ' ' }}
      <template v-if="one.sooner_s !== null">
        {{ shift(one.sooner_s) }}, {{ one.loss_percent?.toFixed(0) }} % lost</template
      >
      <template v-else> {{ one.done_s === null ? 'not done so' : `done after ${duration(one.done_s)}` }}</template>
    </li>
  </ul>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
.facts {
  columns: 2 260px;
  column-gap: var(--s-24);
}
.facts li {
  break-inside: avoid;
  padding: var(--s-4) 0;
  line-height: 1.4;
}
.otherwise {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s-8);
}
.otherwise li {
  background: var(--tint);
  border-radius: 10px;
  padding: var(--s-6) var(--s-12);
  font-size: var(--t-s);
}
</style>
