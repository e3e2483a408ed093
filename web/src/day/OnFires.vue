<script setup lang="ts">
import { computed, ref } from 'vue'
import { byField, sentenceOf } from '../api/client'
import Select from '../kit/Select.vue'
import type { Day, DayChange } from './useDay'

/** On what each piece is cooked: moved from one cooker to another, its fire is reckoned and the day planned anew. */
const props = defineProps<{ day: Day; save: (change: DayChange) => Promise<void> }>()
const refused = ref('')
const rows = computed(() =>
  props.day.pieces.flatMap((piece) =>
    piece.fires.map((fire) => ({
      letter: piece.letter,
      name: piece.name,
      where: fire.key,
      options: [fire, ...fire.others].map((one) => ({ value: one.key, title: one.says })),
      alone: piece.fires.length === 1,
      says: fire.says,
    })),
  ),
)
async function move(letter: string, where: string, onto: string | null | undefined) {
  refused.value = ''
  if (!onto || onto === where) return
  try {
    await props.save({ moved: { letter, where, onto } })
  } catch (failure) {
    refused.value = Object.values(byField(failure))[0] ?? sentenceOf(failure)
  }
}
</script>

<template>
  <section v-if="rows.length" class="plate fires" aria-label="On which fire">
    <h2>On which fire</h2>
    <div class="rows">
      <Select
        v-for="row in rows"
        :key="`${row.letter} ${row.where}`"
        :model-value="row.where"
        :label="row.alone ? `${row.letter}, ${row.name}` : `${row.letter}, what is on the ${row.says}`"
        :options="row.options"
        @update:model-value="move(row.letter, row.where, $event)"
      />
    </div>
    <p class="muted">
      Moved, it is at the same heat, and how long it takes there is reckoned anew. An oven has no smoke.
    </p>
    <p v-if="refused" role="alert">{{ refused }}</p>
  </section>
</template>

<style scoped>
.fires {
  padding: var(--s-16) var(--s-20);
}
.rows {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(200px, 1fr));
  gap: var(--s-10);
  margin-top: var(--s-8);
}
p {
  margin: var(--s-8) 0 0;
  font-size: var(--t-s);
}
</style>
