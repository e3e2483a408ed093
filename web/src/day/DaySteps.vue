<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../api/client'
import { usePreferences } from '../app/preferences'
import { duration, longDay, time } from '../kit/units'

/** The whole day in words, by the hour: what to do, and how long that takes. */
const props = defineProps<{ steps: Schemas['DayStep'][] }>()
const { show } = usePreferences()
const days = computed(() => {
  const found = new Map<string, Schemas['DayStep'][]>()
  for (const step of props.steps) {
    const day = longDay(step.begins_at)
    found.set(day, [...(found.get(day) ?? []), step])
  }
  return [...found]
})
const lasts = (step: Schemas['DayStep']) => (Date.parse(step.ends_at) - Date.parse(step.begins_at)) / 1000
</script>

<template>
  <section class="plate steps" aria-label="Step by step">
    <h2>Step by step</h2>
    <div class="days">
      <div v-for="[day, hours] in days" :key="day">
        <h3>{{ day }}</h3>
        <ol>
          <li v-for="step in hours" :key="`${step.letter} ${step.begins_at}`">
            <b>{{ time(step.begins_at) }}</b>
            <span>{{ step.letter }}: {{ show.sentence(step.says) }}</span>
            <small class="muted">{{ lasts(step) ? duration(lasts(step)) : '' }}</small>
          </li>
        </ol>
      </div>
    </div>
  </section>
</template>

<style scoped>
.steps {
  padding: var(--s-16) var(--s-20);
}
.days {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 360px), 1fr));
  gap: var(--s-16) var(--s-32);
  margin-top: var(--s-8);
}
ol {
  list-style: none;
  margin: var(--s-4) 0 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: 52px minmax(0, 1fr) auto;
  gap: var(--s-8);
  padding: var(--s-4) 0;
  border-top: 1px solid var(--line);
  font-size: var(--t-s);
}
</style>
