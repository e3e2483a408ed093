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

<style scoped src="./targets.css"></style>
<style scoped>
fieldset {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: var(--s-8);
}
label {
  gap: var(--s-4);
  padding: var(--s-12) 0;
  border-radius: 16px;
  font-size: var(--t-xl);
}
circle,
path {
  fill: none;
  stroke: currentcolor;
  stroke-width: 5;
  stroke-linecap: round;
}
.eye {
  fill: currentcolor;
  stroke: none;
}
</style>
