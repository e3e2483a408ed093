<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { useChange } from '../api/change'
import { api, byField, call, Refusal, sentenceOf, type Schemas } from '../api/client'
import Choice from '../kit/Choice.vue'
import Field from '../kit/Field.vue'
import { say } from '../kit/notice'
import { shortDay } from '../kit/units'
import { upper } from './useQuestion'

/** Keep, change or drop one of the two, with a reason; of a blend it goes with its next revision. */
const props = defineProps<{
  question: { kind: 'way' | 'blend' | 'revision'; first: string; second: string }
  names: string[]
  cut: string
  decisions: Schemas['DecisionOut'][]
}>()
const client = useQueryClient()
const side = ref(props.question.first)
watch(
  () => props.question.first,
  (now) => (side.value = now),
)
const what = ref<'keep' | 'change' | 'drop'>('keep')
const reason = ref('')
const wrong = ref<Record<string, string>>({})
const sides = computed(() => [
  { value: props.question.first, text: upper(props.names[0] ?? '') },
  { value: props.question.second, text: upper(props.names[1] ?? '') },
])
const WHAT = [
  { value: 'keep', text: 'Keep' },
  { value: 'change', text: 'Change' },
  { value: 'drop', text: 'Drop' },
] as const
const DONE = { keep: 'Kept', change: 'To be changed', drop: 'Dropped' }
const again = () => client.invalidateQueries({ queryKey: ['verdicts'] })
const decide = useChange(
  'decision',
  async () => {
    const body = { ...props.question, side: side.value, cut: props.cut, what: what.value, reason: reason.value }
    await call(api.POST('/api/verdicts/decisions', { body }))
    reason.value = ''
    wrong.value = {}
  },
  {
    refused: (failure) => {
      wrong.value = byField(failure)
      if (!(failure instanceof Refusal) || !wrong.value['reason']) say(sentenceOf(failure))
    },
    after: again,
  },
)
const takeBack = useChange(
  'decision',
  async (one: string) => {
    const params = { path: { decision_id: one } }
    await call(api.POST('/api/verdicts/decisions/{decision_id}/delete', { params }))
    say('The decision was taken back.', async () => {
      await call(api.POST('/api/verdicts/decisions/{decision_id}/restore', { params }))
      await again()
    })
  },
  { after: again },
)
</script>

<template>
  <section class="plate decide" aria-labelledby="decide">
    <h2 id="decide">Decide</h2>
    <form @submit.prevent="decide">
      <Choice v-model="side" label="Which" :options="sides" />
      <Choice v-model="what" label="What" :options="[...WHAT]" />
      <Field v-model="reason" label="Why" :error="wrong['reason']" />
      <v-btn class="solid" type="submit" :loading="decide.busy.value">Write it down</v-btn>
    </form>
    <ul v-if="decisions.length" class="rows">
      <li v-for="one in decisions" :key="one.id">
        <span
          ><b>{{ DONE[one.what] }}: {{ one.name }}</b> {{ one.reason }}
          <span class="muted">{{ shortDay(one.at) }}</span></span
        >
        <button type="button" class="link" @click="takeBack(one.id)">
          Take back<span class="sr-only"> {{ one.reason }}</span>
        </button>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.decide {
  padding: var(--s-16) var(--s-20);
}
form {
  display: grid;
  gap: var(--s-10);
  margin-top: var(--s-8);
}
</style>
