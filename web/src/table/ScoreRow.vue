<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../api/client'

/** One question of a card: big targets from the lowest to the highest score. */
const props = defineProps<{ scale: Schemas['ScaleOut']; code: string }>()
const score = defineModel<number | undefined>({ required: true })

const words: Record<string, [string, string]> = {
  overall: ['dislike it', 'love it'],
  crust: ['dislike it', 'love it'],
  tenderness: ['tough', 'tender'],
  juiciness: ['dry', 'juicy'],
  'meat flavour': ['buried', 'tastes of the meat'],
  salt: ['too little', 'too much'],
}
const title = computed(() => (props.scale.name === 'salt' ? 'Salt (3 is just right)' : props.scale.name))
const values = computed(() =>
  Array.from({ length: props.scale.high - props.scale.low + 1 }, (_, at) => props.scale.low + at),
)
</script>

<template>
  <fieldset>
    <legend>
      <b>{{ title }}</b> <span class="muted">{{ words[scale.name]?.join(' … ') }}</span>
    </legend>
    <div class="row">
      <label v-for="value in values" :key="value" :class="{ on: score === value }">
        <input
          type="radio"
          :name="`${code} ${scale.name}`"
          :value="value"
          :checked="score === value"
          :aria-label="`${scale.name} of ${code}: ${value}`"
          @change="score = value"
        />
        <span>{{ value }}</span>
      </label>
    </div>
  </fieldset>
</template>

<style scoped>
fieldset {
  border: 0;
  padding: 0;
  margin: 0;
}
legend {
  padding: 0 0 var(--s-4);
  font-size: var(--t-m);
}
legend b {
  display: inline-block;
}
legend b::first-letter {
  text-transform: uppercase;
}
.row {
  display: grid;
  grid-template-columns: repeat(9, minmax(0, 1fr));
  gap: var(--s-4);
}
label {
  position: relative;
  display: grid;
  place-items: center;
  min-height: 46px;
  border-radius: 12px;
  background: var(--tint);
  cursor: pointer;
  font-size: var(--t-xl);
}
label.on {
  background: var(--cobalt);
  color: var(--on-cobalt);
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
</style>
