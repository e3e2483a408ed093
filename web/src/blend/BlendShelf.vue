<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { api, call, sentenceOf, type Schemas } from '../api/client'
import { useChange } from '../api/change'
import { refresh } from '../api/kept'
import { useCatalogue } from '../api/catalogue'
import GrainStrip from '../draw/GrainStrip.vue'
import ListFinder from '../kit/ListFinder.vue'
import { doubt } from '../kit/measures'
import { say } from '../kit/notice'
import { ranked } from '../kit/rank'
import RowMenu from '../kit/RowMenu.vue'
import { percent, shortDay } from '../kit/units'
import Why from '../kit/Why.vue'
import { bandsOfShares } from './bands'
import { usualBatch } from './kinds'
import { typed, type Doc } from './useBlend'
import { sure } from '../kit/sure'

type Row = Schemas['BlendRow']
const router = useRouter()
const queries = useQueryClient()
const { grinds } = useCatalogue()
const { data: blends, error } = useQuery({ queryKey: ['blends'], queryFn: () => call(api.GET('/api/blends')) })

const bandsOf = ({ grinds: keys, shares }: Row) =>
  bandsOfShares(
    keys.map((grind, at) => ({ grind, share: sure(shares[at]) })),
    grinds.value,
  )
const rows = computed(() => (blends.value ?? []).map((blend) => ({ ...blend, bands: bandsOf(blend) })))
const archived = ref(false)
const away = computed(() => rows.value.filter((row) => row.archived).length)
watch(away, (count) => count || (archived.value = false))
const [sought, kind] = [ref(''), ref('')]
const inUse = computed(() => rows.value.filter((row) => row.archived === archived.value))
const kinds = computed(() => [...new Set(inUse.value.map((row) => row.kind))])
/** What is typed finds a blend by its name, its kind or what is in it; what was cooked with last stands first. */
const listed = computed(() => {
  const ofKind = inUse.value.filter((row) => !kind.value || row.kind === kind.value)
  const latest = [...ofKind].sort((a, b) => (b.last_cook ?? '').localeCompare(a.last_cook ?? ''))
  return ranked(
    latest,
    (row) => `${row.name} ${row.kind} ${row.bands.map((band) => band.name).join(' ')}`,
    sought.value,
  )
})

const others: Doc['kind'][] = ['paste', 'binder', 'injection', 'glaze', 'spritz', 'cooking liquid', 'finishing salt']
async function put(body: Doc) {
  const blend = await call(api.POST('/api/blends', { body }))
  await refresh(queries, ['blends'])
  await router.push(`/blend/${blend.id}`)
}
const open = useChange('blends', put)
function begin(kind: Doc['kind']) {
  const name = `New ${kind === 'dry rub' ? 'rub' : kind}`
  const batch = usualBatch(kind)
  const rest = { fire: '', written: 'parts', base: 0, total: 'free', label: null } as const
  return open({ name, kind, batch, lines: [], ...rest, targets: [], uses: [], method: [] })
}

const duplicate = useChange('blends', async (row: Row) => {
  const of = await call(api.GET('/api/blends/{blend_id}', { params: { path: { blend_id: row.id } } }))
  await put({ ...typed(of), name: `${of.name}, copy`.slice(0, 80) })
})

const archive = useChange('blends', async (row: Row) => {
  const set = async (archived: boolean, version: number) => {
    const path = { blend_id: row.id }
    const out = await call(
      api.POST('/api/blends/{blend_id}/archive', { params: { path }, body: { version, archived } }),
    )
    await refresh(queries, ['blends'])
    return out.version
  }
  const version = await set(!row.archived, row.version)
  const says = row.archived ? 'is back among your blends.' : 'is put away. It stays where it is used.'
  say(`${row.name} ${says}`, async () => void (await set(row.archived, version)))
})

const doings = (row: Row) => [
  { text: 'Duplicate', label: `Duplicate ${row.name}`, does: () => duplicate(row) },
  row.archived
    ? { text: 'Take out of the archive', label: `Take ${row.name} out of the archive`, does: () => archive(row) }
    : { text: 'Archive', label: `Archive ${row.name}`, does: () => archive(row) },
  { text: 'Delete', label: `Delete ${row.name}`, does: () => remove(row) },
]

function about(row: Row): string {
  const lines = `${row.lines} ${row.lines === 1 ? 'line' : 'lines'}`
  const kept = row.kept ? `, ${row.kept} kept` : ''
  const when = row.last_cook && (row.last_cook > new Date().toISOString() ? 'for' : 'cooked')
  const used = row.last_cook ? `, ${when} ${shortDay(row.last_cook)}` : ''
  return `${row.kind}, ${lines}${kept}${row.branch_of ? `, branch of ${row.branch_of}` : ''}${used}`
}

const remove = useChange(
  'blends',
  async (row: Row) => {
    const params = { path: { blend_id: row.id } }
    await call(api.POST('/api/blends/{blend_id}/delete', { params, body: { version: row.version } }))
    say(`${row.name} is deleted. Cooks that used it keep it.`, async () => {
      await call(api.POST('/api/blends/{blend_id}/restore', { params }))
      await refresh(queries, ['blends'])
    })
  },
  { after: () => refresh(queries, ['blends']) },
)
</script>

<template>
  <main>
    <header class="station-head">
      <h1>Blends</h1>
      <div class="tools">
        <v-btn class="solid" @click="begin('dry rub')">New rub</v-btn>
        <v-btn @click="begin('marinade')">New marinade</v-btn>
        <v-btn to="/blend/bring">Bring one in</v-btn>
        <v-btn to="/blend/label">From a label</v-btn>
        <v-menu>
          <template #activator="{ props: opens }"><v-btn v-bind="opens">Another kind</v-btn></template>
          <v-list><v-list-item v-for="one in others" :key="one" :title="`New ${one}`" @click="begin(one)" /></v-list>
        </v-menu>
      </div>
    </header>
    <p v-if="error" class="muted">{{ sentenceOf(error) }}</p>
    <p v-else-if="blends && !blends.length" class="muted">
      No blend in the book yet. Begin with a rub or a marinade; parts go by spoon or by scale.
    </p>
    <ListFinder
      v-if="inUse.length > 1"
      v-model="sought"
      v-model:kind="kind"
      :kinds="kinds"
      label="Find a blend"
      placeholder="lamb, fennel, marinade"
    />
    <p v-if="inUse.length && !listed.length" class="muted">None of your blends is like that.</p>
    <ul class="plate">
      <li v-for="row in listed" :key="row.id">
        <router-link :to="`/blend/${row.id}`" class="open">
          <span class="name">
            <b>{{ row.name }}</b>
            <span v-if="row.problem" class="says">{{ row.problem.replaceAll('`', '') }}</span>
            <span v-else class="muted">{{ about(row) }}</span>
          </span>
          <GrainStrip v-if="row.bands.length" :bands="row.bands" :height="40" class="strip" />
          <span v-else class="muted strip">nothing in it yet</span>
        </router-link>
        <span class="salt">
          <b v-if="row.salt"
            ><Why :figure="row.salt" :of="`Salt in ${row.name}`">{{ percent(row.salt.value) }}</Why></b
          >
          <b v-else>–</b> <span class="muted">salt</span>
          <small v-if="row.salt && doubt(row.salt, 0.2)" class="muted">{{ doubt(row.salt, 0.2) }}</small>
        </span>
        <RowMenu :of="row.name" :doings="doings(row)" />
      </li>
    </ul>
    <p v-if="away" class="away">
      <button type="button" @click="archived = !archived">
        {{ archived ? 'Back to the blends in use' : `${away} put away in the archive` }}
      </button>
    </p>
  </main>
</template>

<style scoped>
.says {
  color: var(--stop);
  font-size: var(--t-s);
}
ul {
  list-style: none;
  margin: 0;
  padding: var(--s-8) var(--s-24);
}
ul:not(:has(li)) {
  display: none;
}
li {
  display: flex;
  align-items: center;
  gap: var(--s-4);
}
li + li {
  border-top: 1px solid var(--line);
}
.open {
  flex: 1;
  min-width: 0;
  display: grid;
  grid-template-columns: minmax(200px, 320px) 1fr;
  gap: var(--s-20);
  align-items: center;
  padding: var(--s-12) 0;
}
.name {
  display: grid;
}
.name span,
.salt span {
  font-size: var(--t-s);
}
.open:hover .name b {
  text-decoration: underline;
}
.salt small {
  display: block;
  font-size: var(--t-xs);
}
.salt {
  text-align: right;
  width: 116px;
  white-space: nowrap;
}
.away button {
  color: var(--link);
  text-decoration: underline;
  text-underline-offset: 3px;
  min-height: 44px;
}
@media (max-width: 720px) {
  ul {
    padding: var(--s-4) var(--s-16);
  }
  li {
    flex-wrap: wrap;
    padding-bottom: var(--s-6);
  }
  .salt {
    margin-right: auto;
    text-align: left;
  }
  .open {
    flex-basis: 100%;
    grid-template-columns: 1fr;
    gap: var(--s-8);
    padding-bottom: var(--s-4);
  }
  .strip {
    grid-column: 1 / -1;
  }
}
</style>
