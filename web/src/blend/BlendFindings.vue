<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../api/client'
import CautionList from '../kit/CautionList.vue'
import Why from '../kit/Why.vue'
import type { Reading } from './useBlend'

/** What a blend will do: how long it keeps, what it holds that some cannot eat, and its findings. */
const props = defineProps<{ reading: Reading; before: Schemas['BeforeOut'] | null }>()

function keeps(days: number): string {
  if (days < 14) return `${days} ${days === 1 ? 'day' : 'days'}`
  if (days < 60) return `${Math.round(days / 7)} weeks`
  const months = Math.round(days / 30.4)
  return months < 24 ? `${months} months` : `${Math.round(months / 12)} years`
}
const was = computed(() => {
  const days = props.before?.keeps_days
  return days != null && keeps(days) !== keeps(props.reading.keeping.days) ? `, was ${keeps(days)}` : ''
})
/** Allergens against the revision before: what came in and what went out. */
const moved = computed(() => {
  if (!props.before) return ''
  const now = props.reading.allergens
  const then = props.before.allergens
  const came = now.filter((name) => !then.includes(name)).map((name) => `${name} came in`)
  const went = then.filter((name) => !now.includes(name)).map((name) => `${name} went out`)
  return [...came, ...went].join(', ')
})
const unnamed = computed(() => props.reading.cautions.some((one) => one.id === 'unnamed'))
const others = computed(() => props.reading.cautions.filter((caution) => caution.id !== 'allergens'))
</script>

<template>
  <section class="findings" aria-label="What it will do">
    <p>
      <b
        >Keeps <Why :figure="reading.keeping.figure" of="How long it keeps">{{ keeps(reading.keeping.days) }}</Why></b
      >
      {{ reading.keeping.place }}: {{ reading.keeping.because }}<span class="muted">{{ was }}</span
      >.
    </p>
    <p>
      <template v-if="reading.allergens.length">
        <b>Holds {{ reading.allergens.join(', ') }}</b
        >: tell your guests before they eat.
      </template>
      <template v-else-if="unnamed">None that its label names, but not every spice in it is named.</template>
      <template v-else>None of the allergens that are named here is in it.</template>
      <span v-if="moved" class="muted"> Since revision {{ before!.number }}: {{ moved }}.</span>
    </p>
    <CautionList :cautions="others" only="others" />
  </section>
</template>

<style scoped>
.findings {
  display: grid;
  gap: var(--s-10);
  padding: var(--s-16) var(--s-6) 0;
  font-size: var(--t-s);
}
p {
  margin: 0;
}
.findings :deep(.cautions) {
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 320px), 1fr));
  gap: var(--s-10) var(--s-24);
}
</style>
