<script setup lang="ts">
import CautionList from '../ui/CautionList.vue'
import type { Reading } from './useBlend'

/** What a blend will do: how long it keeps, what it holds that some cannot eat, and its findings. */
defineProps<{ reading: Reading }>()

function keeps(days: number): string {
  if (days < 14) return `${days} ${days === 1 ? 'day' : 'days'}`
  if (days < 60) return `${Math.round(days / 7)} weeks`
  const months = Math.round(days / 30.4)
  return months < 24 ? `${months} months` : `${Math.round(months / 12)} years`
}
</script>

<template>
  <section class="findings" aria-label="What it will do">
    <p>
      <b>Keeps {{ keeps(reading.keeping.days) }}</b> {{ reading.keeping.place }}: {{ reading.keeping.because }}.
    </p>
    <CautionList :cautions="reading.cautions" only="others" />
  </section>
</template>

<style scoped>
.findings {
  display: grid;
  gap: 10px;
  padding: 16px 6px 0;
  font-size: 14px;
}
p {
  margin: 0;
}
.findings :deep(.cautions) {
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 320px), 1fr));
  gap: 10px 22px;
}
</style>
