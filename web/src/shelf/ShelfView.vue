<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, call, sentenceOf, type Schemas } from '../api/client'
import { useChange } from '../api/change'
import { refresh } from '../api/kept'
import { bandsOfShares } from '../blend/bands'
import { useCatalogue } from '../api/catalogue'
import CautionList from '../kit/CautionList.vue'
import Field from '../kit/Field.vue'
import JarDrawing from '../draw/JarDrawing.vue'
import { say } from '../kit/notice'
import { usePreferences } from '../app/preferences'
import { longDay, percent } from '../kit/units'
import Why from '../kit/Why.vue'
import RowMenu from '../kit/RowMenu.vue'
import OwnShelf from './OwnShelf.vue'
import { sure } from '../kit/sure'

/** The shelf: every batch that was mixed, as a jar at its level, and what is still on the scale. */
type Row = Schemas['BatchRow']
const queries = useQueryClient()
const { show } = usePreferences()
const { grinds } = useCatalogue()
const { data: batches, error } = useQuery({ queryKey: ['batches'], queryFn: () => call(api.GET('/api/batches')) })
const jars = computed(() => (batches.value ?? []).filter((batch) => batch.jar))
const spoiled = computed(() => (batches.value ?? []).filter((batch) => batch.problem))
const open = computed(() => (batches.value ?? []).filter((batch) => batch.state === 'weighing' && !batch.problem))
const bands = (row: Row) => bandsOfShares(row.bands, grinds.value)

const left = ref<Record<string, string>>({})
const wrong = ref<Record<string, string>>({})
const keepJar = useChange(
  'batches',
  async (row: Row, change: { clean?: boolean; frozen?: boolean }) => {
    const { clean, frozen } = { ...sure(row.jar), ...change }
    const body = { version: row.version, left: left.value[row.id]?.trim() ?? '', clean, frozen }
    wrong.value[row.id] = ''
    await call(api.PUT('/api/batches/{batch_id}/jar', { params: { path: { batch_id: row.id } }, body }))
    left.value[row.id] = ''
    await refresh(queries, ['batches'])
  },
  { refused: (failure, [row]) => (wrong.value[row.id] = sentenceOf(failure)) },
)
const doings = (row: Row) => [
  ...(row.jar?.clean ? [{ text: 'Raw hands touched it', does: () => save(row, { clean: false }) }] : []),
  ...(row.jar && (row.jar.frozen || row.jar.cautions.length)
    ? [
        {
          text: row.jar.frozen ? 'It is thawed' : 'It is frozen',
          label: `${row.name} is ${row.jar.frozen ? 'thawed' : 'frozen'}`,
          does: () => save(row, { frozen: !row.jar?.frozen }),
        },
      ]
    : []),
  { text: 'Remove', label: `Remove ${row.name} from the shelf`, does: () => remove(row) },
]
const save = (row: Row, change = {}) => keepJar(row, change)
const remove = useChange(
  'batches',
  async (row: Row) => {
    const path = { batch_id: row.id }
    await call(api.POST('/api/batches/{batch_id}/leave', { params: { path }, body: { version: row.version } }))
    say(`${row.name} is off the shelf.`, async () => {
      await call(api.POST('/api/batches/{batch_id}/restore', { params: { path } }))
      await refresh(queries, ['batches'])
    })
  },
  { after: () => refresh(queries, ['batches']) },
)
</script>

<template>
  <main>
    <header class="station-head">
      <div>
        <h1>Shelf</h1>
        <p class="muted">Jars with what was really weighed into them. Labels and stock are not built yet.</p>
      </div>
    </header>
    <p v-if="error" class="muted">{{ sentenceOf(error) }}</p>
    <section v-if="open.length" class="plate open" aria-label="Still on the scale">
      <p v-for="row in open" :key="row.id">
        <b>{{ row.name }}</b> is still being weighed, {{ show.mass(row.poured_g) }} of {{ show.mass(row.wanted_g) }}.
        <router-link :to="`/blend/weigh/${row.id}`">Go on</router-link>
      </p>
    </section>
    <section v-if="spoiled.length" class="plate open" aria-label="What cannot be read">
      <p v-for="row in spoiled" :key="row.id">
        <b>{{ row.name }}</b> <span class="touched">{{ row.problem.replaceAll('`', '') }}</span>
        <v-btn class="quiet" :aria-label="`Remove ${row.name} from the shelf`" @click="remove(row)">Remove</v-btn>
      </p>
    </section>
    <p v-if="batches && !jars.length" class="muted">
      No jar yet. Open a blend, choose Measure and weigh it out; the batch ends here.
    </p>
    <ul v-if="jars.length" class="jars">
      <li v-for="row in jars" :key="row.id" class="plate">
        <JarDrawing :bands="bands(row)" :full="row.jar!.full" :name="row.name" :width="108" />
        <div>
          <div class="head">
            <h2>
              <router-link :to="`/blend/weigh/${row.id}`">{{ row.name }}</router-link>
            </h2>
            <RowMenu :of="row.name" :doings="doings(row)" />
          </div>
          <p class="muted">mixed {{ longDay(row.mixed_at!) }}, {{ show.mass(row.poured_g) }}</p>
          <p>
            <b>{{ show.mass(row.jar!.left_g) }}</b> left<template v-if="row.salt"
              >,
              <Why :figure="row.salt" :of="`Salt in this jar of ${row.name}`">{{ percent(row.salt.value) }}</Why>
              salt</template
            >
          </p>
          <p :class="{ touched: !row.jar!.clean }">
            {{ row.jar!.clean ? 'clean' : 'touched: use it up now or throw it away' }}
          </p>
          <p v-if="row.jar!.frozen">frozen</p>
          <CautionList :cautions="row.jar!.cautions" />
          <form class="acts" @submit.prevent="save(row)">
            <Field
              :model-value="left[row.id] ?? ''"
              :label="`Left of ${row.name}`"
              hidden-label
              placeholder="left, 40 g"
              :error="wrong[row.id]"
              @update:model-value="left[row.id] = $event"
            />
            <v-btn type="submit" :disabled="!left[row.id]?.trim()">Set</v-btn>
          </form>
        </div>
      </li>
    </ul>
    <OwnShelf />
  </main>
</template>

<style scoped>
.head {
  display: flex;
  justify-content: space-between;
  align-items: start;
}
.open {
  padding: var(--s-12) var(--s-20);
  margin-bottom: var(--s-16);
}
p {
  margin: 0;
}
.jars {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(100%, 430px), 1fr));
  gap: var(--s-16);
}
.jars li > div:last-child {
  flex: 1;
  min-width: 0;
}
.jars li {
  display: flex;
  gap: var(--s-20);
  padding: var(--s-20) var(--s-20);
  align-items: center;
}
h2 a:hover {
  text-decoration: underline;
}
.touched {
  color: var(--stop);
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s-6) var(--s-8);
  align-items: start;
  margin-top: var(--s-8);
}
.acts .field {
  width: 116px;
}
</style>
