<script setup lang="ts">
import { computed, useId } from 'vue'
import { sure } from '../kit/sure'
import { coatHere } from './useCoat'

/** What is to be done otherwise next time, and what was noted so the last time. */
const coat = coatHere()
const id = useId()
const note = computed({
  get: () => sure(coat.doc.value).note ?? '',
  set: (typed) => (sure(coat.doc.value).note = typed),
})
const noted = computed(() => coat.cook.value?.noted ?? '')
</script>

<template>
  <section class="plate next-time" aria-label="Next time">
    <p v-if="noted"><b>Last time you noted:</b> {{ noted }}</p>
    <label :for="id">For next time</label>
    <textarea
      :id="id"
      v-model="note"
      rows="3"
      maxlength="2000"
      placeholder="Salt it the night before; a little less smoke."
    />
  </section>
</template>

<style scoped>
.next-time {
  padding: var(--s-16) var(--s-20);
  display: grid;
  gap: var(--s-6);
}
label {
  font-size: var(--t-xs);
  color: var(--muted);
}
p {
  margin: 0 0 var(--s-8);
  white-space: pre-line;
}
</style>
