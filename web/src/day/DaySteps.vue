<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../api/client'
import { usePreferences } from '../app/preferences'
import { duration, longDay, time } from '../kit/units'
import { whose, type Day } from './useDay'

/** The whole day in words, by the hour, to tick off; beside it when each was in the plan that was kept. */
type Step = Schemas['DayStep']
const props = defineProps<{ day: Day }>()
defineEmits<{ tick: [step: { letter: string; key: string; done: boolean }]; keep: [kept: boolean] }>()
const { show } = usePreferences()
const days = computed(() => {
  const found = new Map<string, Step[]>()
  for (const step of props.day.day.steps) {
    const day = longDay(step.begins_at)
    found.set(day, [...(found.get(day) ?? []), step])
  }
  return [...found]
})
const lasts = (step: Step) => (Date.parse(step.ends_at) - Date.parse(step.begins_at)) / 1000
const was = computed(
  () => new Map((props.day.was?.steps ?? []).map((step) => [`${step.letter} ${step.key}`, step.begins_at])),
)
/** When it was planned to be, where that is another time. */
function planned(step: Step) {
  const before = was.value.get(`${step.letter} ${step.key}`)
  if (!before) return props.day.was ? 'new' : ''
  return Math.abs(Date.parse(before) - Date.parse(step.begins_at)) < 150_000 ? '' : `was ${time(before)}`
}
const late = computed(() => Date.parse(props.day.now))
</script>

<template>
  <section class="plate steps" aria-label="Step by step">
    <header>
      <h2>Step by step</h2>
      <button v-if="!day.was" type="button" class="link" @click="$emit('keep', true)">Keep this plan</button>
      <span v-else class="muted"
        >Beside the plan of {{ time(day.was.at) }}{{ day.was.changed ? ', made by another version' : '' }}.
        <button type="button" class="link" @click="$emit('keep', true)">Keep this one instead</button></span
      >
    </header>
    <div class="days">
      <div v-for="[name, hours] in days" :key="name">
        <h3>{{ name }}</h3>
        <ol>
          <li
            v-for="step in hours"
            :key="`${step.letter} ${step.key} ${step.begins_at}`"
            :class="{ done: step.done, late: !step.done && Date.parse(step.ends_at) < late }"
          >
            <input
              type="checkbox"
              :checked="step.done"
              :aria-label="`${step.letter}: ${step.says}, done`"
              @change="$emit('tick', { letter: step.letter, key: step.key, done: !step.done })"
            />
            <b>{{ time(step.begins_at) }}</b>
            <span
              >{{ whose(day, step.letter) }}{{ show.sentence(step.says) }}
              <small v-if="planned(step)" class="was">{{ planned(step) }}</small></span
            >
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
header {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s-4) var(--s-16);
  align-items: baseline;
  justify-content: space-between;
  font-size: var(--t-s);
}
.days {
  columns: 2 380px;
  column-gap: var(--s-32);
  margin-top: var(--s-8);
}
h3 {
  break-after: avoid;
  padding-top: var(--s-8);
}
li {
  break-inside: avoid;
}
ol {
  list-style: none;
  margin: var(--s-4) 0 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: 22px 48px minmax(0, 1fr) auto;
  gap: var(--s-8);
  padding: var(--s-4) 0;
  border-top: 1px solid var(--line);
  font-size: var(--t-s);
}
input {
  width: 18px;
  height: 18px;
  margin: 1px 0 0;
  accent-color: var(--cobalt);
}
.done span,
.done b {
  color: var(--muted);
  text-decoration: line-through;
}
.was {
  color: var(--caution);
}
@media (max-width: 720px) {
  li {
    min-height: 40px;
    align-items: center;
  }
  input {
    width: 22px;
    height: 22px;
  }
}
</style>
