<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '../api/client'
import Field from '../kit/Field.vue'
import Select from '../kit/Select.vue'
import { useThisFire } from './useFire'

/** What only hands know after a cook: what it weighs, how many ate, what came back and is left, what to do otherwise. */
const props = defineProps<{ pieces: Schemas['PieceAfter'][] }>()
const { fire, noteTyped } = useThisFire()
const WHAT = [
  { value: 'weight', title: 'It weighs, cooked', of: 'piece', hint: '1.3 kg' },
  { value: 'fed', title: 'It fed', of: 'cook', hint: '6' },
  { value: 'came back', title: 'Came back from the plates', of: 'piece', hint: '120 g' },
  { value: 'left over', title: 'Left over', of: 'piece', hint: '400 g' },
  { value: 'next time', title: 'Next time', of: 'cook', hint: 'Begin an hour sooner' },
]
const what = ref('weight')
const letter = ref('')
const where = ref('fridge')
const text = ref('')
const refused = ref('')
const chosen = computed(() => WHAT.find((one) => one.value === what.value) ?? WHAT[0])
const whose = computed(
  () => props.pieces.find((one) => one.letter === letter.value)?.letter ?? props.pieces[0]?.letter ?? '',
)
const letters = computed(() => props.pieces.map((one) => ({ value: one.letter, title: one.letter })))
const places = computed(() =>
  (fire.value?.kinds.find((kind) => kind.key === 'left over')?.words ?? []).map((one) => ({ value: one, title: one })),
)
const label = computed(() => {
  if (what.value === 'fed') return 'How many ate'
  return what.value === 'next time' ? 'What to do otherwise' : 'How heavy'
})
async function note() {
  const typed = text.value.trim()
  const count = Number(typed)
  const of = chosen.value?.of === 'piece' ? whose.value : ''
  refused.value = await noteTyped(
    `${of ? `${of}: ` : ''}${chosen.value?.title}`,
    what.value,
    what.value === 'fed'
      ? { count: Number.isInteger(count) ? count : null }
      : what.value === 'next time'
        ? { note: typed }
        : { letter: of, grams: typed, word: what.value === 'left over' ? where.value : '' },
  )
  if (!refused.value) text.value = ''
}
</script>

<template>
  <form class="form" @submit.prevent="note">
    <Select v-model="what" label="Note" :options="WHAT" />
    <Select
      v-if="chosen?.of === 'piece' && letters.length > 1"
      :model-value="whose"
      label="Of"
      :options="letters"
      @update:model-value="letter = String($event)"
    />
    <Field v-model="text" :label="label" :placeholder="chosen?.hint" :error="refused" />
    <Select v-if="what === 'left over'" v-model="where" label="Put" :options="places" />
    <button type="submit" class="go">Note it</button>
  </form>
</template>

<style scoped>
.form {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s-10);
  align-items: end;
}
.form > * {
  flex: 1 1 130px;
}
.go {
  flex: 0 0 auto;
  min-height: var(--tap);
  padding: 0 var(--s-16) !important;
  border-radius: 12px;
  background: var(--cobalt) !important;
  color: var(--on-cobalt) !important;
  font-weight: 650 !important;
}
</style>
