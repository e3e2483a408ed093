<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../api/client'
import { askedAs, endsOf } from './scales'

/** One question of a plate from the lowest to the highest score, in big targets; the one that decides is larger. */
const props = defineProps<{ scale: Schemas['ScaleOut']; code: string; decides?: boolean }>()
const score = defineModel<number | undefined>({ required: true })
const title = computed(() => (props.decides ? `How much do you like ${props.code}?` : askedAs(props.scale.name)))
const values = computed(() =>
  Array.from({ length: props.scale.high - props.scale.low + 1 }, (_, at) => props.scale.low + at),
)
</script>

<template>
  <fieldset :class="{ decides }">
    <legend>
      <b>{{ title }}</b>
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
    <p class="ends muted" aria-hidden="true">
      <span v-for="end in endsOf(scale.name)" :key="end">{{ end }}</span>
    </p>
  </fieldset>
</template>

<style scoped src="./targets.css"></style>
<style scoped>
.decides legend {
  font-family: var(--display);
  font-size: var(--t-h2);
  padding-bottom: var(--s-8);
}
.row {
  display: grid;
  grid-template-columns: repeat(9, minmax(0, 1fr));
  gap: var(--s-4);
}
label {
  min-height: 46px;
  font-size: var(--t-xl);
}
.decides label {
  min-height: 64px;
  font-size: var(--t-h2);
  font-family: var(--display);
}
.ends {
  display: flex;
  justify-content: space-between;
  font-size: var(--t-xs);
  margin: var(--s-2) 0 0;
}
</style>
