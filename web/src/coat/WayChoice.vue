<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, call, type Schemas } from '../api/client'
import { useChange } from '../api/change'
import { keep, refresh } from '../api/kept'
import { useCatalogue } from '../api/catalogue'
import Field from '../kit/Field.vue'
import { say } from '../kit/notice'
import OtherCooks from './OtherCooks.vue'
import { coatHere } from './useCoat'
import { sure } from '../kit/sure'

/** Ways to start from: the shipped ones, the household's own, and the stacks of the other pieces; and this one, to keep. */
const coat = coatHere()
const emit = defineEmits<{ done: [] }>()
const queries = useQueryClient()
const { catalogue } = useCatalogue()
const { data: ways } = useQuery({ queryKey: ['ways'], queryFn: () => call(api.GET('/api/cooks/ways')) })
const { data: decided } = useQuery({
  queryKey: ['verdicts', 'decisions'],
  queryFn: () => call(api.GET('/api/verdicts/decisions')),
})
const DONE = { keep: 'kept', change: 'to be changed', drop: 'dropped' }
/** What was decided of a way, on the cut of this piece or on all. */
const decidedOf = (key: string) =>
  (decided.value ?? []).filter(
    (one) => one.kind === 'way' && one.side === key && (!one.cut || one.cut === coat.piece.value?.cut),
  )
const others = computed(() =>
  (coat.doc.value?.pieces ?? []).filter((piece, at) => at !== coat.current.value && piece.layers.length),
)
const name = ref('')

async function take(key: string) {
  if (await coat.takeWay(key)) emit('done')
}
async function put(layers: Schemas['LayerDocument'][]) {
  if (await coat.putStack(layers)) emit('done')
}
const keepThis = useChange('ways', async () => {
  const layers = JSON.parse(JSON.stringify(sure(coat.piece.value).layers)) as Schemas['LayerDocument'][]
  await call(api.POST('/api/cooks/ways', { body: { name: name.value, layers } }))
  say(`“${name.value}” is kept.`)
  name.value = ''
  await refresh(queries, ['ways'])
})
async function remove(way: Schemas['WayOut']) {
  const path = { way_id: way.id }
  await keep(queries, ['ways'], await call(api.POST('/api/cooks/ways/{way_id}/delete', { params: { path } })))
  say(`“${way.name}” is deleted.`, async () => {
    await keep(queries, ['ways'], await call(api.POST('/api/cooks/ways/{way_id}/restore', { params: { path } })))
  })
}
</script>

<template>
  <div class="starts" role="group" aria-label="Ways to start from">
    <h3>Ways <span class="muted">common practice</span></h3>
    <ul>
      <li v-for="one in catalogue?.ways ?? []" :key="one.key">
        <button type="button" class="take" @click="take(one.key)">
          <b>{{ one.name }}</b> <span class="muted">{{ one.says }}</span>
          <span v-for="said in decidedOf(one.key)" :key="said.id" class="decided"
            >Decided: {{ DONE[said.what] }}, {{ said.reason }}</span
          >
        </button>
      </li>
    </ul>
    <template v-if="others.length">
      <h3>Like another piece</h3>
      <ul>
        <li v-for="piece in others" :key="piece.letter">
          <button type="button" class="take" @click="put(piece.layers)">
            <b>{{ piece.letter }}, {{ piece.name }}</b>
            <span class="muted">{{ piece.layers.map((layer) => layer.kind).join(', ') }}</span>
          </button>
        </li>
      </ul>
    </template>
    <OtherCooks @take="put" />
    <h3>Your own</h3>
    <!-- above what is asked for, which would push it away under a finger -->
    <form v-if="coat.piece.value?.layers.length" @submit.prevent="keepThis">
      <Field v-model="name" label="Keep this way as" placeholder="Overnight salt, late rub" />
      <v-btn type="submit" :disabled="!name.trim()">Keep</v-btn>
    </form>
    <p v-if="!ways?.length" class="muted">None kept yet.</p>
    <ul>
      <li v-for="way in ways ?? []" :key="way.id" class="own">
        <button type="button" class="take" :disabled="!!way.problem" @click="put(way.layers)">
          <b>{{ way.name }}</b>
          <span class="muted">{{
            way.problem.replaceAll('`', '') || way.layers.map((layer) => layer.kind).join(', ')
          }}</span>
        </button>
        <button type="button" class="link" :aria-label="`Delete ${way.name}`" @click="remove(way)">Delete</button>
      </li>
    </ul>
  </div>
</template>

<style scoped>
.starts {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--s-6);
  background: var(--plate);
  border-radius: 14px;
  padding: var(--s-14);
}
h3 {
  font-size: var(--t-m);
  margin-top: var(--s-4);
}
h3 span {
  font-size: var(--t-xs);
  font-weight: 400;
}
ul {
  list-style: none;
  padding: 0;
  margin: 0;
}
p {
  margin: 0;
  font-size: var(--t-s);
}
.take {
  text-align: left;
  width: 100%;
  padding: var(--s-6) var(--s-8);
  border-radius: 8px;
  font-size: var(--t-s);
  line-height: 1.3;
  min-height: 36px;
}
.take:hover {
  background: var(--tint);
}
.take b,
.decided {
  display: block;
}
.decided {
  font-weight: 600;
}
.own {
  display: flex;
  align-items: center;
}
.link {
  font-size: var(--t-s);
}
form {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  align-items: end;
  gap: var(--s-8);
}
@media (max-width: 720px) {
  .take {
    min-height: 44px;
  }
}
</style>
