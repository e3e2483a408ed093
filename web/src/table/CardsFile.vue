<script setup lang="ts">
import { ref } from 'vue'
import { useChange } from '../api/change'
import { api, call, type Schemas } from '../api/client'
import { say } from '../kit/notice'
import type { Table } from './useTable'

/** Cards as a file, out and in; what of it could not be read, by line and column. */
const props = defineProps<{ table: Table }>()
const emit = defineEmits<{ changed: [table: Table] }>()
const text = ref('')
const faults = ref<Schemas['CardFault'][]>([])
const bring = useChange('trial', async () => {
  const params = { path: { trial_id: props.table.trial_id } }
  const told = await call(api.POST('/api/trials/{trial_id}/cards.csv', { params, body: { text: text.value } }))
  faults.value = told.faults
  say(
    `${told.taken.length ? `In: ${told.taken.join(', ')}.` : 'No new card in it.'}${told.known.length ? ` There already: ${told.known.join(', ')}.` : ''}`,
  )
  emit('changed', await call(api.GET('/api/trials/{trial_id}', { params })))
})
async function file(event: Event) {
  const chosen = (event.target as HTMLInputElement).files?.[0]
  if (chosen) {
    text.value = await chosen.text()
    await bring()
  }
}
</script>

<template>
  <section class="plate csv">
    <h2>As a file</h2>
    <p>
      A row for each plate of each taster, as CSV.
      <a class="link" :href="`/api/trials/${table.trial_id}/cards.csv`" download="cards.csv">Take the cards out</a>
    </p>
    <label class="file">Bring cards in <input type="file" accept=".csv,text/csv,text/plain" @change="file" /></label>
    <ul v-if="faults.length">
      <li v-for="fault in faults" :key="`${fault.line} ${fault.column}`">
        <b>Line {{ fault.line }}, column {{ fault.column }}:</b> {{ fault.sentence }}
      </li>
    </ul>
  </section>
</template>

<style scoped>
.csv {
  display: grid;
  gap: var(--s-14);
  padding: var(--s-20) var(--s-24);
}
.csv p,
.csv ul {
  margin: 0;
  font-size: var(--t-m);
}
.file {
  display: grid;
  gap: var(--s-4);
  font-size: var(--t-s);
}
</style>
