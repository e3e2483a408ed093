<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../api/client'
import OldMark from '../kit/OldMark.vue'
import { duration } from '../kit/units'

/** When it comes off the fire, and how sure that is. */
const props = defineProps<{ reading: Schemas['HeatReading']; old: boolean }>()
const span = computed(() => {
  const { done_low_s: low, done_high_s: high } = props.reading
  if (low === null) return ''
  return high === null ? `${duration(low)} at the soonest` : `${duration(low)} to ${duration(high)}, nine times in ten`
})
</script>

<template>
  <p class="when">
    <b v-if="reading.done_s !== null">Off the fire after {{ duration(reading.done_s) }}</b>
    <b v-else>It is not done so</b>
    <OldMark v-if="old" />
    <span class="muted">{{ span }}</span>
  </p>
</template>

<style scoped>
.when {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--s-2) var(--s-12);
}
b {
  font-family: var(--display);
  font-size: var(--t-h2);
  line-height: 1.15;
}
</style>
