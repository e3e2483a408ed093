<script setup lang="ts">
import type { Schemas } from '../api/client'
import { usePreferences } from './preferences'

/** Any figure of the core, asked why: its working with its own numbers, the sources and the error. */
const props = defineProps<{ figure: Schemas['Figure']; of: string }>()
const { show } = usePreferences()
const say = (value: number, unit: string) => show.value.inUnit(value, unit)
const result = () => say(props.figure.value, props.figure.unit)
</script>

<template>
  <v-menu :close-on-content-click="false" location="bottom" max-width="460" scroll-strategy="reposition">
    <template #activator="{ props: opens }">
      <button v-bind="opens" type="button" class="why" :class="{ number: $slots.default }">
        <slot>why</slot><span class="sr-only">, why: {{ of }}</span>
      </button>
    </template>
    <section class="working" :aria-label="`Working of ${of}`">
      <h3>{{ of }}</h3>
      <p class="result">{{ result() }}</p>
      <p v-if="figure.low !== null && figure.high !== null" class="range">
        between {{ say(figure.low, figure.unit) }} and {{ say(figure.high, figure.unit) }}
      </p>
      <ol>
        <li v-for="(step, at) in figure.steps" :key="at">
          <div class="line">
            <span>{{ step.label }}</span>
            <b>{{ say(step.value, step.unit) }}</b>
          </div>
          <div class="formula">{{ step.formula }}</div>
          <div v-if="step.mark !== 'arithmetic'" class="source">{{ step.source }} ({{ step.mark }})</div>
        </li>
      </ol>
      <p class="error"><b>Error</b> {{ figure.error }}</p>
    </section>
  </v-menu>
</template>

<style scoped>
.why {
  position: relative;
  font-size: 13px;
  color: var(--link);
  text-decoration: underline;
  text-underline-offset: 3px;
  text-decoration-thickness: 1px;
  padding: 2px 4px;
  border-radius: 6px;
}
.why.number {
  color: inherit;
  font: inherit;
  font-size: inherit;
  padding: 0;
  text-decoration-style: dotted;
  text-decoration-color: var(--line-strong);
  text-underline-offset: 4px;
  white-space: nowrap;
}
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
  padding: 18px 20px;
  max-height: 70vh;
  overflow: auto;
}
h3 {
  font-size: 15px;
  color: var(--muted);
  font-weight: 600;
}
.result {
  font-family: var(--display);
  font-size: 26px;
  font-weight: 700;
  line-height: 1.15;
}
.range {
  color: var(--muted);
  font-size: 14px;
}
ol {
  list-style: none;
  padding: 0;
  margin: 12px 0;
}
li {
  border-top: 1px solid var(--line);
  padding: 7px 0;
  font-size: 14px;
}
.line {
  display: flex;
  justify-content: space-between;
  gap: 16px;
}
.line b {
  white-space: nowrap;
}
.formula,
.source {
  color: var(--muted);
  font-size: 13px;
}
.source {
  font-style: italic;
}
.error {
  font-size: 14px;
  margin: 0;
}
</style>
