<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed } from 'vue'
import { useRouter } from 'vue-router'
import { api, call, sentenceOf, type Schemas } from '../api/client'
import { useChange } from '../api/change'
import { refresh } from '../api/kept'
import { bandsOfShares } from '../blend/bands'
import { grindName, useCatalogue } from '../api/catalogue'
import GrainStrip from '../draw/GrainStrip.vue'
import { say } from '../kit/notice'
import { usePreferences } from '../app/preferences'
import Why from '../kit/Why.vue'
import { coatHere } from './useCoat'
import MeatToBuy from './MeatToBuy.vue'
import { sure } from '../kit/sure'

/** What all pieces take of each blend, what the shelf holds of it, what is still to be mixed, and where to take it. */
const coat = coatHere()
const queries = useQueryClient()
const router = useRouter()
const { grinds } = useCatalogue()
const { show } = usePreferences()
const id = computed(() => sure(coat.cook.value).id)
const { data: totals, error } = useQuery({
  queryKey: ['totals', id],
  queryFn: async () => {
    await coat.autosave.flush()
    return call(api.GET('/api/cooks/{cook_id}/totals', { params: { path: { cook_id: id.value } } }))
  },
  staleTime: 0,
})
const by = (uses: Schemas['TakesOut'][]) =>
  uses.map((use) => `${use.letter} ${show.value.mass(use.grams)} ${use.kind}`.trim()).join(', ')

async function size(total: Schemas['TotalOut']) {
  const body = { blend_id: total.blend_id }
  const made = await call(api.POST('/api/cooks/{cook_id}/batch', { params: { path: { cook_id: id.value } }, body }))
  await refresh(queries, ['blends'], ['blend', total.blend_id], ['totals'])
  return made
}
const toBlend = useChange('blends', async (total: Schemas['TotalOut']) => {
  const made = await size(total)
  say(`The batch of ${total.name} is ${made.batch} now.`)
  await router.push(`/blend/${total.blend_id}`)
})
const weighOut = useChange('blends', async (total: Schemas['TotalOut']) => {
  const made = await size(total)
  const body = { blend: total.blend_id, version: made.version, wanted: `${total.mix.value} g`, resolution_g: 0.1 }
  const batch = await call(api.POST('/api/batches', { body }))
  await router.push(`/blend/weigh/${batch.id}`)
})
</script>

<template>
  <section class="plate totals" aria-label="What to mix for all of it">
    <h2>What to mix for all of it</h2>
    <p v-if="error" class="muted">{{ sentenceOf(error) }}</p>
    <p v-for="problem in totals?.problems ?? []" :key="problem.field" class="says">{{ problem.sentence }}</p>
    <div v-for="total in totals?.blends ?? []" :key="total.blend_id" class="total">
      <GrainStrip :bands="bandsOfShares(total.bands, grinds)" :height="22" class="strip" />
      <div>
        <b>{{ total.name }}</b>
        <p class="muted">
          takes <Why :figure="total.takes" :of="`All of ${total.name}`">{{ show.mass(total.takes.value) }}</Why>:
          {{ by(total.by) }}
        </p>
        <p v-if="total.aside_g > 0" class="aside">
          <b>Set {{ show.mass(total.aside_g) }} aside</b> for later before any of it touches raw meat.
        </p>
      </div>
      <p class="mix">
        <template v-if="total.mix.value > 0">
          <b class="big"
            ><Why :figure="total.mix" :of="`To mix of ${total.name}`">{{ show.mass(total.mix.value) }}</Why></b
          >
          to mix
          <span class="muted"
            ><Why :figure="total.spoons.volume" of="Level spoons">{{ total.spoons.text }}</Why></span
          >
        </template>
        <b v-else>The shelf has enough</b>
        <span class="muted">
          {{ total.shelf_g > 0 ? `${show.mass(total.shelf_g)} on the shelf, ` : ''
          }}{{ show.mass(Math.max(0, total.left_g)) }} left over
        </span>
      </p>
      <p class="ways">
        <v-btn @click="toBlend(total)">To Blend</v-btn>
        <v-btn v-if="total.mix.value > 0" class="solid" @click="weighOut(total)">Weigh it out</v-btn>
      </p>
    </div>
    <div v-for="one in totals?.plain ?? []" :key="one.grind" class="total">
      <span />
      <div>
        <b>{{ grinds.get(one.grind) ? grindName(grinds.get(one.grind)!) : one.grind }}</b>
        <p class="muted">{{ by(one.by) }}</p>
      </div>
      <p class="mix">
        <b
          ><Why :figure="one.takes" of="All of it">{{ show.mass(one.takes.value) }}</Why></b
        >
        <span class="muted"
          ><Why :figure="one.spoons.volume" of="Level spoons">{{ one.spoons.text }}</Why></span
        >
      </p>
    </div>
    <p v-if="totals && !totals.blends.length && !totals.plain.length" class="muted">No layer takes anything yet.</p>
    <MeatToBuy v-if="totals?.buy.length" :rows="totals.buy" :serves="totals.serves" :eaters="totals.eaters" />
  </section>
</template>

<style scoped>
.totals {
  padding: var(--s-20) var(--s-24);
  display: grid;
  gap: var(--s-10);
}
h2 {
  font-size: var(--t-h3);
}
.total {
  display: grid;
  grid-template-columns: 96px minmax(0, 1fr) 210px auto;
  gap: var(--s-16);
  align-items: center;
  border-top: 1px solid var(--line);
  padding-top: var(--s-10);
}
p {
  margin: 0;
  font-size: var(--t-s);
}
.mix span {
  display: block;
}
.big {
  font-size: var(--t-h2);
}
.ways {
  display: flex;
  gap: var(--s-8);
}
.says {
  color: var(--stop);
}
.aside b {
  color: var(--caution);
}
@media (max-width: 900px) {
  .total {
    grid-template-columns: minmax(0, 1fr);
    gap: var(--s-6);
  }
}
</style>
