<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../api/client'
import { useCatalogue } from '../api/catalogue'
import { usePreferences } from '../app/preferences'
import { sure } from './sure'

/** The working of a figure: its steps with their own numbers, the sources and the error. */
const props = defineProps<{ figure: Schemas['Figure']; of: string }>()
const { catalogue } = useCatalogue()
const { show } = usePreferences()
const say = (value: number, unit: string) => show.value.inUnit(value, unit)
const source = (key: string) => catalogue.value?.sources[key]
/** Whether it may lie anywhere but where it is said to. */
const ranges = computed(() => {
  const { low, high, unit } = props.figure
  return low !== null && high !== null && say(sure(low), unit) !== say(sure(high), unit)
})
const result = () => say(props.figure.value, props.figure.unit)
</script>

<template>
  <section class="working" :aria-label="`Working of ${of}`">
    <h3>{{ of }}</h3>
    <p class="result">{{ result() }}</p>
    <p v-if="ranges" class="range">
      between {{ say(figure.low!, figure.unit) }} and {{ say(figure.high!, figure.unit) }}
    </p>
    <ol>
      <li v-for="(step, at) in figure.steps" :key="at">
        <div class="line">
          <span>{{ step.label }}</span>
          <b>{{ say(step.value, step.unit) }}</b>
        </div>
        <div class="formula">{{ step.formula }}</div>
        <div v-if="step.source !== 'arithmetic' && source(step.source ?? '')" class="source">
          {{ source(step.source ?? '')!.title }} ({{ source(step.source ?? '')!.mark }})
        </div>
      </li>
    </ol>
    <p class="error"><b>Error</b> {{ figure.error }}</p>
  </section>
</template>

<style scoped>
.working p,
.working h3 {
  margin: 0;
}
.working {
  font-family: var(--body);
  line-height: 1.4;
  background: var(--plate);
  color: var(--ink);
  border: 2px solid var(--rim);
  border-radius: 16px;
  padding: var(--s-20) var(--s-20);
  max-height: 70vh;
  overflow: auto;
}
h3 {
  font-size: var(--t-m);
  color: var(--muted);
  font-weight: 600;
}
.result {
  font-family: var(--display);
  font-size: var(--t-h1);
  font-weight: 700;
  line-height: 1.15;
}
.range {
  color: var(--muted);
  font-size: var(--t-s);
}
ol {
  list-style: none;
  padding: 0;
  margin: var(--s-12) 0;
}
li {
  border-top: 1px solid var(--line);
  padding: var(--s-8) 0;
  font-size: var(--t-s);
}
.line {
  display: flex;
  justify-content: space-between;
  gap: var(--s-16);
}
.line b {
  white-space: nowrap;
}
.formula,
.source {
  color: var(--muted);
  font-size: var(--t-xs);
}
.source {
  font-style: italic;
}
.error {
  font-size: var(--t-s);
  margin: 0;
}
</style>
