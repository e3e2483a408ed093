<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { reactive, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { api, byField, call, sentenceOf } from '../api/client'
import { useChange } from '../api/change'
import { refresh } from '../api/kept'
import PieceBadge from '../draw/PieceBadge.vue'
import Field from '../kit/Field.vue'
import { nextSaturday } from '../kit/when'
import When from '../kit/When.vue'
import CutChoice from '../shelf/CutChoice.vue'

/** Cook a past cook again: on another day, with other meat of other weight; doses are scaled to it. */
const open = defineModel<boolean>({ required: true })
const props = defineProps<{ id: string; name: string }>()
const queries = useQueryClient()
const router = useRouter()
const path = { cook_id: props.id }
const { data: cook } = useQuery({
  queryKey: ['cook', props.id],
  queryFn: () => call(api.GET('/api/cooks/{cook_id}', { params: { path } })),
  gcTime: 0,
})
const form = reactive({ name: `${props.name}, again`.slice(0, 80), serve: nextSaturday() })
const meat = ref<{ letter: string; name: string; cut: string; mass: string }[]>([])
watch(
  cook,
  (found) => (meat.value = (found?.pieces ?? []).map(({ letter, name, cut, mass }) => ({ letter, name, cut, mass }))),
  { immediate: true },
)
const errors = ref<Record<string, string>>({})
const failure = ref('')
const begin = useChange(
  'cooks',
  async () => {
    errors.value = {}
    failure.value = ''
    if (!form.serve) {
      errors.value = { serve_at: 'Say on which day and at what time people sit down.' }
      return
    }
    const pieces = meat.value.map(({ letter, cut, mass }) => ({ letter, cut, mass }))
    const body = { name: form.name, serve_at: form.serve, pieces }
    const made = await call(api.POST('/api/cooks/{cook_id}/copy', { params: { path }, body }))
    await refresh(queries, ['home'], ['cooks'])
    open.value = false
    await router.push(`/coat/${made.id}`)
  },
  {
    refused: (problem) => {
      errors.value = byField(problem)
      if (!Object.keys(errors.value).length) failure.value = sentenceOf(problem)
    },
  },
)
</script>

<template>
  <v-dialog v-model="open" max-width="640" aria-label="Cook it again">
    <form class="plate again" novalidate @submit.prevent="begin()">
      <h2>Cook it again</h2>
      <p v-if="cook?.note" class="noted"><b>You noted for next time:</b> {{ cook.note }}</p>
      <div class="two">
        <Field v-model="form.name" label="What is it called" :error="errors.name" />
        <When v-model="form.serve" label="People sit down" :error="errors.serve_at" />
      </div>
      <fieldset v-for="(piece, at) in meat" :key="piece.letter">
        <legend><PieceBadge :letter="piece.letter" /> {{ piece.name }}</legend>
        <div>
          <span class="label">Cut</span>
          <CutChoice v-model="piece.cut" :label="`Cut of piece ${piece.letter}`" />
          <em v-if="errors[`pieces.${at}.cut`]" role="alert">{{ errors[`pieces.${at}.cut`] }}</em>
        </div>
        <Field v-model="piece.mass" label="Raw weight" :error="errors[`pieces.${at}.mass`]" />
      </fieldset>
      <p class="muted">
        Doses on a dial fit the meat by themselves; what was said in grams or spoons is scaled to lie as heavy as
        before.
      </p>
      <p v-if="failure" role="alert">{{ failure }}</p>
      <div class="ways">
        <v-btn class="solid" type="submit">Begin</v-btn>
        <v-btn class="quiet" @click="open = false">Not now</v-btn>
      </div>
    </form>
  </v-dialog>
</template>

<style scoped>
.again {
  padding: var(--s-24);
  display: grid;
  gap: var(--s-16);
}
.two,
fieldset {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: var(--s-12);
  align-items: start;
}
fieldset {
  margin: 0;
  border: 0;
  border-top: 1px solid var(--line);
  padding: var(--s-10) 0 0;
}
.label {
  font-size: var(--t-xs);
  color: var(--muted);
  display: block;
  padding-bottom: var(--s-4);
}
em,
[role='alert'] {
  color: var(--stop);
  font-style: normal;
  font-size: var(--t-xs);
}
p {
  margin: 0;
  font-size: var(--t-s);
}
.noted {
  background: var(--tint);
  border-radius: 12px;
  padding: var(--s-10) var(--s-14);
  font-size: var(--t-m);
  white-space: pre-line;
}
.ways {
  display: flex;
  gap: var(--s-8);
}
@media (max-width: 720px) {
  .two,
  fieldset {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
