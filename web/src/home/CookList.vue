<script setup lang="ts">
import { computed, defineAsyncComponent, ref } from 'vue'
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { api, call, type Schemas } from '../api/client'
import { useChange } from '../api/change'
import { refresh } from '../api/kept'
import { say } from '../kit/notice'
import { ranked } from '../kit/rank'
import RowMenu from '../kit/RowMenu.vue'
import { longDay } from '../kit/units'

/** A short list needs no search. */
const ListFinder = defineAsyncComponent(() => import('../kit/ListFinder.vue'))

/** All cooks in the book; another can be taken in hand, or deleted and brought back. */
type Row = Schemas['CookRow']
const queries = useQueryClient()
const { data: cooks } = useQuery({ queryKey: ['cooks'], queryFn: () => call(api.GET('/api/cooks')) })
const sought = ref('')
const listed = computed(() =>
  ranked(cooks.value ?? [], (row) => `${row.name} ${row.pieces.join(' ')} ${longDay(row.serve_at)}`, sought.value),
)
const doings = (row: Row) => [
  ...(row.in_hand ? [] : [{ text: 'Take in hand', label: `Take in hand: ${row.name}`, does: () => take(row) }]),
  { text: 'Cook it again', label: `Cook ${row.name} again`, does: () => (begun.value = row) },
  { text: 'Delete', label: `Delete ${row.name}`, does: () => remove(row) },
]
/** The cook that is to be cooked again. */
const begun = ref<Row | null>(null)
const CookAgain = defineAsyncComponent(() => import('./CookAgain.vue'))
const again = () => refresh(queries, ['cooks'], ['home'])

const take = useChange(
  'cooks',
  (row: Row) => call(api.POST('/api/cooks/{cook_id}/take', { params: { path: { cook_id: row.id } } })),
  { after: again },
)
const remove = useChange(
  'cooks',
  async (row: Row) => {
    const path = { cook_id: row.id }
    await call(api.POST('/api/cooks/{cook_id}/delete', { params: { path }, body: { version: row.version } }))
    say(`${row.name} is deleted.`, async () => {
      await call(api.POST('/api/cooks/{cook_id}/restore', { params: { path } }))
      await again()
    })
  },
  { after: again },
)
</script>

<template>
  <section v-if="cooks?.length" class="cooks" aria-labelledby="cooks">
    <h2 id="cooks">Cooks in the book</h2>
    <ListFinder
      v-if="cooks.length > 5"
      v-model="sought"
      label="Find a cook"
      placeholder="duck, supper, October"
      class="find"
    />
    <p v-if="!listed.length" class="muted">No cook is called so.</p>
    <ul>
      <li v-for="row in listed" :key="row.id">
        <span>
          <router-link v-if="!row.problem" :to="`/coat/${row.id}`"
            ><b>{{ row.name }}</b></router-link
          >
          <b v-else>{{ row.name }}</b>
          <span v-if="row.problem" class="says">{{ row.problem.replaceAll('`', '') }}</span>
          <span v-else class="muted when"
            >{{ longDay(row.serve_at) }}, {{ row.pieces.join(row.trial ? ' against ' : ', ').toLowerCase() }}</span
          >
        </span>
        <router-link v-if="row.trial?.cards" :to="`/verdict/${row.trial.id}`">{{ row.trial.cards }} cards</router-link>
        <span v-else class="muted">no card yet</span>
        <span class="muted">{{ row.in_hand ? 'in hand' : '' }}</span>
        <RowMenu :of="row.name" :doings="doings(row)" />
      </li>
    </ul>
    <CookAgain
      v-if="begun"
      :id="begun.id"
      :key="begun.id"
      :name="begun.name"
      :model-value="true"
      @update:model-value="begun = null"
    />
  </section>
</template>

<style scoped>
.says {
  color: var(--stop);
  font-size: var(--t-s);
}
.cooks {
  margin-top: var(--s-24);
}
ul {
  list-style: none;
  margin: var(--s-8) 0 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 110px 70px auto;
  align-items: center;
  gap: var(--s-14);
  border-top: 1px solid var(--line-strong);
  padding: var(--s-4) 0;
  min-height: 50px;
}
b,
.when {
  display: block;
}
.when {
  font-size: var(--t-m);
}
a {
  color: var(--link);
  text-decoration: underline;
}
a:has(b) {
  color: inherit;
  text-decoration: none;
}
a:has(b):hover {
  text-decoration: underline;
}
.find {
  margin: var(--s-10) 0 var(--s-4);
}
@media (max-width: 720px) {
  li {
    grid-template-columns: auto 1fr auto;
    gap: 0 var(--s-12);
    padding: var(--s-6) 0 0;
  }
  li > span:first-child {
    grid-column: 1 / -1;
  }
}
</style>
