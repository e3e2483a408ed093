<script setup lang="ts">
import { FACES } from './scales'

/** A child's question of one plate: three faces. */
defineProps<{ code: string }>()
const score = defineModel<number | undefined>({ required: true })
const MOUTH: Record<number, string> = { 3: 'M28 58 Q50 84 72 58', 2: 'M30 64 H70', 1: 'M28 72 Q50 50 72 72' }
</script>

<template>
  <fieldset>
    <legend class="sr-only">How was {{ code }}?</legend>
    <label v-for="face in FACES" :key="face.value" :class="{ on: score === face.value }">
      <input
        type="radio"
        :name="`${code} face`"
        :value="face.value"
        :checked="score === face.value"
        :aria-label="`${code}: ${face.word}`"
        @change="score = face.value"
      />
      <svg viewBox="0 0 100 100" width="84" height="84" aria-hidden="true">
        <circle cx="50" cy="50" r="44" />
        <circle cx="35" cy="40" r="5" class="eye" />
        <circle cx="65" cy="40" r="5" class="eye" />
        <path :d="MOUTH[face.value]" />
      </svg>
      <span>{{ face.word }}</span>
    </label>
  </fieldset>
</template>

<style scoped>
fieldset {
  border: 0;
  padding: 0;
  margin: 0;
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: var(--s-8);
}
label {
  position: relative;
  display: grid;
  place-items: center;
  gap: var(--s-4);
  padding: var(--s-12) 0;
  border-radius: 16px;
  background: var(--tint);
  font-size: var(--t-xl);
  cursor: pointer;
}
label.on {
  box-shadow: inset 0 0 0 4px var(--cobalt);
  font-weight: 700;
}
label:has(:focus-visible) {
  outline: 3px solid var(--focus);
}
input {
  position: absolute;
  inset: 0;
  opacity: 0;
  cursor: pointer;
}
circle,
path {
  fill: none;
  stroke: var(--ink);
  stroke-width: 5;
  stroke-linecap: round;
}
.eye {
  fill: var(--ink);
  stroke: none;
}
</style>
