<script setup lang="ts">
import { ref } from 'vue'
import type { Schemas } from '../api/client'
import LabelForm from './LabelForm.vue'
import { benchHere } from './useBlend'
import { sure } from '../kit/sure'

/** A bought blend on the bench: its label in place of a ratio. Its lines follow the label. */
const label = defineModel<Schemas['LabelDocument'] | null>({ required: true })
const bench = benchHere()
const doc = sure(bench.doc.value)

/** The list of ingredients as it was read, put together again from the lines. */
function listed(): string {
  const { minor_from, stated } = sure(label.value)
  const names = doc.lines.map((line, at) => {
    const share = stated?.find((one) => one.place === at)?.share
    return `${line.said}${share ? ` (${Number((share * 100).toFixed(1))} %)` : ''}`
  })
  if (minor_from == null || minor_from >= names.length) return names.join(', ')
  return `${names.slice(0, minor_from).join(', ')}, contains 2 % or less of: ${names.slice(minor_from).join(', ')}`
}
const ingredients = ref(listed())
const chosen = Object.fromEntries(doc.lines.map((line) => [line.said ?? '', line.grind ?? '']))

function take(found: Schemas['LabelOut'] | null) {
  const now = bench.doc.value
  if (!now || !found?.label) return
  const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b)
  if (!same(now.lines, found.lines)) now.lines = found.lines
  if (!same(now.label, found.label)) now.label = found.label
}
</script>

<template>
  <section class="plate label" aria-label="Label">
    <h2>From its label</h2>
    <p class="muted">Nobody knows the recipe; these are the shares the label leaves open. Correct it here.</p>
    <LabelForm
      v-model:label="label!"
      v-model:ingredients="ingredients"
      :kind="bench.doc.value!.kind"
      :batch="bench.doc.value!.batch"
      :chosen="chosen"
      @read="take"
    />
  </section>
</template>

<style scoped>
.label {
  padding: var(--s-16) var(--s-20);
}
p {
  margin: var(--s-4) 0 var(--s-12);
  font-size: var(--t-s);
}
</style>
