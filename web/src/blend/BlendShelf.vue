<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed } from 'vue'
import { useRouter } from 'vue-router'
import { api, call, sentenceOf, type Schemas } from '../api/client'
import { useCatalogue } from '../ui/catalogue'
import GrainStrip from '../ui/GrainStrip.vue'
import { say } from '../ui/notice'
import { percent } from '../ui/units'
import Why from '../ui/Why.vue'

const router = useRouter()
const queries = useQueryClient()
const { grinds } = useCatalogue()
const { data: blends, error } = useQuery({ queryKey: ['blends'], queryFn: () => call(api.GET('/api/blends')) })

const rows = computed(() =>
  (blends.value ?? []).map((blend) => ({
    ...blend,
    bands: blend.grinds.flatMap((key, at) => {
      const grind = grinds.value.get(key)
      return grind && blend.shares[at] ? [{ of: grind, name: grind.name, share: blend.shares[at] }] : []
    }),
  })),
)

async function begin(kind: 'dry rub' | 'marinade') {
  try {
    const name = kind === 'marinade' ? 'New marinade' : 'New rub'
    const batch = kind === 'marinade' ? '500 g' : '100 g'
    const blend = await call(api.POST('/api/blends', { body: { name, kind, batch, lines: [] } }))
    await queries.invalidateQueries({ queryKey: ['blends'] })
    await router.push(`/blend/${blend.id}`)
  } catch (failure) {
    say(sentenceOf(failure))
  }
}

async function copy(row: Schemas['BlendRow']) {
  try {
    const of = await call(api.GET('/api/blends/{blend_id}', { params: { path: { blend_id: row.id } } }))
    const body = {
      name: `${of.name}, copy`.slice(0, 80),
      kind: row.kind as 'dry rub',
      batch: of.batch,
      lines: of.lines,
    }
    const made = await call(api.POST('/api/blends', { body }))
    await queries.invalidateQueries({ queryKey: ['blends'] })
    await router.push(`/blend/${made.id}`)
  } catch (failure) {
    say(sentenceOf(failure))
  }
}

async function remove(row: Schemas['BlendRow']) {
  const path = { blend_id: row.id }
  try {
    await call(api.POST('/api/blends/{blend_id}/delete', { params: { path }, body: { version: row.version } }))
    say(`${row.name} is deleted. Cooks that used it keep it.`, async () => {
      await call(api.POST('/api/blends/{blend_id}/restore', { params: { path } }))
      await queries.invalidateQueries({ queryKey: ['blends'] })
    })
  } catch (failure) {
    say(sentenceOf(failure))
  }
  await queries.invalidateQueries({ queryKey: ['blends'] })
}
</script>

<template>
  <main>
    <header class="station-head">
      <h1>Blends</h1>
      <div class="tools">
        <v-btn class="solid" @click="begin('dry rub')">New rub</v-btn>
        <v-btn @click="begin('marinade')">New marinade</v-btn>
      </div>
    </header>
    <p v-if="error" class="muted">{{ sentenceOf(error) }}</p>
    <p v-else-if="blends && !blends.length" class="muted">
      No blend in the book yet. Begin with a rub or a marinade; parts go by spoon or by scale.
    </p>
    <ul class="plate">
      <li v-for="row in rows" :key="row.id">
        <router-link :to="`/blend/${row.id}`" class="open">
          <span class="name">
            <b>{{ row.name }}</b>
            <span class="muted"
              >{{ row.kind }}, {{ row.lines }} {{ row.lines === 1 ? 'ingredient' : 'ingredients' }}</span
            >
          </span>
          <GrainStrip v-if="row.bands.length" :bands="row.bands" :height="40" class="strip" />
          <span v-else class="muted strip">nothing in it yet</span>
        </router-link>
        <span class="salt">
          <b v-if="row.salt"
            ><Why :figure="row.salt" :of="`Salt in ${row.name}`">{{ percent(row.salt.value) }}</Why></b
          >
          <b v-else>–</b> <span class="muted">salt</span>
        </span>
        <v-btn class="quiet" :aria-label="`Copy ${row.name}`" @click="copy(row)">Copy</v-btn>
        <v-btn class="quiet" :aria-label="`Delete ${row.name}`" @click="remove(row)">Delete</v-btn>
      </li>
    </ul>
  </main>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 0;
  padding: 8px 22px;
}
ul:not(:has(li)) {
  display: none;
}
li {
  display: flex;
  align-items: center;
  gap: 4px;
}
li + li {
  border-top: 1px solid var(--line);
}
.open {
  flex: 1;
  min-width: 0;
  display: grid;
  grid-template-columns: minmax(200px, 270px) 1fr;
  gap: 20px;
  align-items: center;
  padding: 12px 0;
}
.name {
  display: grid;
}
.name span,
.salt span {
  font-size: 14px;
}
.open:hover .name b {
  text-decoration: underline;
}
.salt {
  text-align: right;
  width: 116px;
  white-space: nowrap;
}
@media (max-width: 720px) {
  ul {
    padding: 4px 16px;
  }
  li {
    flex-wrap: wrap;
    padding-bottom: 6px;
  }
  .salt {
    margin-right: auto;
    text-align: left;
  }
  .open {
    flex-basis: 100%;
    grid-template-columns: 1fr;
    gap: 8px;
    padding-bottom: 4px;
  }
  .strip {
    grid-column: 1 / -1;
  }
}
</style>
