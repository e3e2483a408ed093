<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { computed, reactive, ref } from 'vue'
import { api, byField, call, sentenceOf, within } from '../api/client'
import { useChange } from '../api/change'
import { refresh } from '../api/kept'
import Field from '../kit/Field.vue'
import { say } from '../kit/notice'
import Why from '../kit/Why.vue'
import { coatHere } from './useCoat'
import { useOwnCoat } from './useOwnCoat'
import { sure } from '../kit/sure'

/** What was taken, what is left and what fell off: the coat that really went on, and the cook's own coat weight. */
const coat = coatHere()
const props = defineProps<{ at: number; surface: string }>()
const emit = defineEmits<{ use: [dose: string, stays: string] }>()
const queries = useQueryClient()
const cut = computed(() => sure(coat.piece.value).cut)
const own = useOwnCoat(
  () => cut.value,
  () => props.surface,
  () => sure(sure(coat.piece.value).layers[props.at]).kind,
)
const form = reactive({ taken: '', left: '', fell: '', pan: '' })
const errors = ref<Record<string, string>>({})
const mineStays = computed(() => (own.value?.stays ? (own.value.stays * 100).toFixed(0) : ''))
const mine = computed(() => own.value?.figure.value.toFixed(1) ?? '')

const keep = useChange(
  'shares',
  async () => {
    errors.value = {}
    await coat.autosave.flush()
    const letter = sure(coat.piece.value).letter
    const body = { letter, layer: props.at, ...form }
    const sent = { params: { path: coat.path() }, body }
    const found = await call(api.POST('/api/cooks/{cook_id}/weigh-back', sent))
    await refresh(queries, ['own coat'])
    Object.assign(form, { taken: '', left: '', fell: '', pan: '' })
    emit('use', found.dose, found.put_stays)
    say(`Your coat is ${found.figure.value.toFixed(1)} g on 100 cm² now.`, async () => {
      const path = { row_id: sure(found.noted) }
      await call(api.POST('/api/cooks/coat/weigh-back/{row_id}/take-back', { params: { path } }))
      await refresh(queries, ['own coat'])
    })
  },
  {
    refused: (failure) => {
      const found = byField(failure)
      if (Object.keys(found).length) errors.value = { ...found, ...within(found, '.') }
      else say(sentenceOf(failure))
    },
  },
)
</script>

<template>
  <form class="back" aria-label="Weigh back" @submit.prevent="keep">
    <p v-if="own" class="muted">
      {{ own.times ? `Weighed back ${own.times} times on ${surface} meat` : `Never weighed back on ${surface} meat` }}:
      your coat is about <Why :figure="own.figure" of="Your own coat">{{ mine }} g on 100 cm²</Why>.
      <template v-if="own.taken">New coats begin so by themselves.</template>
      <template v-else-if="own.times">From three on, new coats begin so by themselves.</template>
      <button type="button" class="link" @click="emit('use', mine, mineStays)">Dose it so</button>
    </p>
    <div class="four">
      <Field v-model="form.taken" label="Taken" placeholder="60 g" :error="errors.taken ?? errors.layer" />
      <Field v-model="form.left" label="Left over" placeholder="18 g" :error="errors.left" />
      <Field v-model="form.fell" label="Fell off" placeholder="3 g" :error="errors.fell" />
      <Field v-model="form.pan" label="Fat in the pan" placeholder="0 g" :error="errors.pan" />
    </div>
    <v-btn type="submit" :disabled="!form.taken || !form.left">Note it</v-btn>
  </form>
</template>

<style scoped>
.back {
  display: grid;
  gap: var(--s-10);
  justify-items: start;
}
.four {
  display: grid;
  grid-template-columns: repeat(4, minmax(0, 1fr));
  gap: var(--s-8);
  align-items: start;
}
p {
  margin: 0;
  font-size: var(--t-s);
}
@media (max-width: 720px) {
  .four {
    grid-template-columns: repeat(2, minmax(0, 1fr));
  }
}
</style>
