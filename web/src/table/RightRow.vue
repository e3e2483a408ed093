<script setup lang="ts">
import { askedAs, RIGHT_WORDS } from './scales'

/** A just-about-right question: the right stands in the middle, too little to its left, too much to its right. */
defineProps<{ scale: string; code: string }>()
const score = defineModel<number | undefined>({ required: true })
</script>

<template>
  <fieldset>
    <legend>
      <b>{{ askedAs(scale) }}</b>
    </legend>
    <div class="row">
      <label v-for="(word, at) in RIGHT_WORDS" :key="word" :class="{ on: score === at + 1, right: at === 2 }">
        <input
          type="radio"
          :name="`${code} ${scale}`"
          :value="at + 1"
          :checked="score === at + 1"
          :aria-label="`${scale} of ${code}: ${word}`"
          @change="score = at + 1"
        />
        <i aria-hidden="true" :style="{ height: `${[10, 18, 26, 34, 42][at]}px` }" />
        <span>{{ word }}</span>
      </label>
    </div>
  </fieldset>
</template>

<style scoped src="./targets.css"></style>
<style scoped>
.row {
  display: grid;
  grid-template-columns: 1fr 1fr 1.3fr 1fr 1fr;
  gap: var(--s-4);
}
label {
  grid-template-rows: 46px auto;
  place-items: end center;
  gap: var(--s-4);
  padding: var(--s-6) var(--s-2);
  font-size: var(--t-xs);
  line-height: 1.15;
  text-align: center;
}
label i {
  width: 14px;
  border-radius: 7px;
  background: var(--line-strong);
}
label.right {
  box-shadow: inset 0 0 0 2px var(--rim);
}
label.on i {
  background: var(--on-cobalt);
}
</style>
