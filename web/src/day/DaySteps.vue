<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../api/client'
import { usePreferences } from '../app/preferences'
import { duration, longDay, time } from '../kit/units'

/** The whole day in words, by the hour: what to do, and for how long it then lies. */
const props = defineProps<{ lanes: Schemas['DayLane'][] }>()
const { show } = usePreferences()
const days = computed(() => {
  const steps = props.lanes
    .flatMap((lane) => [
      ...lane.blocks
        .filter((block) => block.hands)
        .map((block) => ({
          at: block.begins_at,
          key: `${lane.letter} ${block.key}`,
          says: `${lane.letter}: ${block.says}`,
          lasts: block.ends_at,
        })),
      ...(lane.look_at
        ? [
            {
              at: lane.look_at,
              key: `${lane.letter} look`,
              says: `${lane.letter}: look whether it is done, then every half hour`,
              lasts: '',
            },
          ]
        : []),
    ])
    .sort((a, b) => Date.parse(a.at) - Date.parse(b.at))
  const found = new Map<string, typeof steps>()
  for (const step of steps) found.set(longDay(step.at), [...(found.get(longDay(step.at)) ?? []), step])
  return [...found]
})
const lasts = (from: string, to: string) => (to ? duration((Date.parse(to) - Date.parse(from)) / 1000) : '')
</script>

<template>
  <section class="plate steps" aria-label="Step by step">
    <h2>Step by step</h2>
    <div class="days">
      <div v-for="[day, steps] in days" :key="day">
        <h3>{{ day }}</h3>
        <ol>
          <li v-for="step in steps" :key="step.key">
            <b>{{ time(step.at) }}</b><span>{{ show.sentence(step.says) }}</span
            ><small class="muted">{{ lasts(step.at, step.lasts) }}</small>
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
