<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { api, call, type Schemas } from '../api/client'
import { newKey } from '../api/keys'
import { useQuestion } from '../api/question'
import Choice from '../kit/Choice.vue'
import { percent } from '../kit/units'
import Why from '../kit/Why.vue'
import { scaleHere } from './useBatch'

/** Taste and correct: what is off, by how much, and what can be added. What is in the bowl stays in the bowl. */
const bench = scaleHere()
const { data: tastes } = useQuery({ queryKey: ['tastes'], queryFn: () => call(api.GET('/api/batches/tastes')) })
const taste = ref('')
const strength = ref<Schemas['TasteDocument']['strength']>('clearly')
const path = bench.path
const version = computed(() => bench.batch.value?.version)
const question = useQuestion<Schemas['CorrectionOut'][]>()
const { says: failed } = question
const found = computed(() => (failed.value ? [] : (question.answer.value ?? [])))
watch([taste, strength, version], () => {
  if (!taste.value) return question.clear()
  const body = { taste: taste.value, strength: strength.value }
  void question.ask((signal) => call(api.POST('/api/batches/{batch_id}/tasted', { params: { path }, body, signal })))
})
const said = (change: Schemas['Change'], at: 'before' | 'after') =>
  change.unit === '%' ? percent(change[at]) : change[at].toFixed(1)
const moved = (way: Schemas['CorrectionOut']) =>
  way.changes.filter((change) => change.key !== 'cost' && said(change, 'before') !== said(change, 'after')).slice(0, 7)

let key = ''
async function add(way: Schemas['CorrectionOut']) {
  key ||= newKey()
  const sent = key
  const done = await bench.act((at) =>
    call(
      api.POST('/api/batches/{batch_id}/correct', {
        params: { path },
        body: { version: at, taste: taste.value, strength: strength.value, says: way.says, key: sent },
      }),
    ),
  )
  if (done) {
    key = ''
    taste.value = ''
  }
}
</script>

<template>
  <section class="plate taste" aria-label="Taste and correct">
    <h2>Taste it</h2>
    <p class="muted">What is in the bowl cannot be taken out again, so everything is put right by adding.</p>
    <div class="says">
      <button
        v-for="one in tastes"
        :key="one.key"
        type="button"
        :class="{ on: taste === one.key }"
        :aria-pressed="taste === one.key"
        @click="taste = taste === one.key ? '' : one.key"
      >
        {{ one.says }}
      </button>
    </div>
    <Choice
      v-if="taste"
      v-model="strength"
      label="By how much"
      hidden-label
      :options="[
        { value: 'a little', text: 'a little' },
        { value: 'clearly', text: 'clearly' },
        { value: 'a lot', text: 'a lot' },
      ]"
    />
    <p v-if="failed" class="failed" role="alert">{{ failed }}</p>
    <ul>
      <li v-for="way in found" :key="way.says">
        <div>
          <Why :figure="way.figure" :of="way.says"
            ><b>{{ way.says }}</b></Why
          >
          <small class="muted">{{ way.why }}; {{ way.total_g.toFixed(0) }} g in all</small>
          <small v-if="way.adds.length > 1" class="muted">{{
            way.adds.map((one) => `${one.grams.toFixed(1)} g ${one.name}`).join(', ')
          }}</small>
          <p class="moves">
            <span v-for="change in moved(way)" :key="change.key"
              >{{ change.label.toLowerCase() }} {{ said(change, 'before') }} → {{ said(change, 'after') }}</span
            >
          </p>
        </div>
        <v-btn :disabled="bench.busy.value" @click="add(way)">It is in</v-btn>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.taste {
  padding: var(--s-16) var(--s-20);
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--s-10);
}
p {
  margin: 0;
}
.says {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s-6);
}
.says button {
  border: 1.5px solid var(--rim);
  border-radius: 18px;
  padding: var(--s-4) var(--s-14);
  min-height: 38px;
}
.says .on {
  background: var(--cobalt);
  color: var(--on-cobalt);
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: var(--s-14);
  border-top: 1px solid var(--line);
  padding: var(--s-8) 0;
}
li :deep(.why) {
  white-space: normal;
  text-align: left;
}
small {
  display: block;
  font-size: var(--t-s);
}
.moves {
  display: flex;
  flex-wrap: wrap;
  gap: 0 var(--s-14);
  font-size: var(--t-s);
}
.failed {
  color: var(--stop);
}
@media (max-width: 720px) {
  .says button {
    min-height: 44px;
  }
}
</style>
