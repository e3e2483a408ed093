<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'
import { api, call, sentenceOf, type Schemas } from '../api/client'
import { useChange } from '../api/change'
import { refresh } from '../api/kept'
import { useCatalogue } from '../api/catalogue'
import { say } from '../kit/notice'
import { usePreferences } from '../app/preferences'
import { percent } from '../kit/units'
import OwnCooker from './OwnCooker.vue'
import OwnCut from './OwnCut.vue'
import OwnIngredient from './OwnIngredient.vue'
import OwnList from './OwnList.vue'

/** What the household has of its own: ingredients, cuts, and what it calls things. */
type Ingredient = Schemas['OwnOut']
type Cut = Schemas['OwnCutOut']
type Cooker = Schemas['CookerOut']
const queries = useQueryClient()
const { data: own, error } = useQuery({
  queryKey: ['own ingredients'],
  queryFn: () => call(api.GET('/api/shelf/own-ingredients')),
})
const { data: ownCuts, error: noCuts } = useQuery({
  queryKey: ['own cuts'],
  queryFn: () => call(api.GET('/api/shelf/own-cuts')),
})
const { data: ownCookers, error: noCookers } = useQuery({
  queryKey: ['own cookers'],
  queryFn: () => call(api.GET('/api/shelf/own-cookers')),
})
const { data: names } = useQuery({ queryKey: ['own names'], queryFn: () => call(api.GET('/api/shelf/own-names')) })
const { catalogue, cuts } = useCatalogue()
const { show } = usePreferences()
const meant = (key: string) =>
  cuts.value.get(key)?.name ?? catalogue.value?.grinds.find((grind) => grind.key.startsWith(`${key}/`))?.name ?? key
const forget = useChange(
  'own',
  (name: string) => call(api.PUT('/api/shelf/own-names', { body: { name, means: '' } })),
  { after: () => refresh(queries, ['own names'], ['catalogue']) },
)
const openIngredient = ref(false)
const ingredient = ref<Ingredient>()
const openCooker = ref(false)
const cooker = ref<Cooker>()
function editCooker(one?: Cooker) {
  cooker.value = one
  openCooker.value = true
}
const openCut = ref(false)
const cut = ref<Cut>()
function editIngredient(one?: Ingredient) {
  ingredient.value = one
  openIngredient.value = true
}
function editCut(one?: Cut) {
  cut.value = one
  openCut.value = true
}
const again = () => refresh(queries, ['own ingredients'], ['own cuts'], ['own cookers'], ['catalogue'], ['heat of cut'])
type Left = { name: string; used_in: string[] }
/** Take one away: it is offered no more, and stays where it is used. */
const removing = (away: (id: string, version: number) => Promise<Left>, back: (id: string) => Promise<unknown>) =>
  useChange(
    'own',
    async ({ id, version }: { id: string; version: number }) => {
      const left = await away(id, version)
      const where = left.used_in.slice(0, 3).join(', ')
      say(where ? `${left.name} is offered no more; it stays in ${where}.` : `${left.name} is gone.`, async () => {
        await back(id)
        await again()
      })
    },
    { after: again },
  )
const of = (own_id: string) => ({ path: { own_id } })
const removeIngredient = removing(
  (id, version) => call(api.POST('/api/shelf/own-ingredients/{own_id}/remove', { params: of(id), body: { version } })),
  (id) => call(api.POST('/api/shelf/own-ingredients/{own_id}/restore', { params: of(id) })),
)
const removeCut = removing(
  (id, version) => call(api.POST('/api/shelf/own-cuts/{own_id}/remove', { params: of(id), body: { version } })),
  (id) => call(api.POST('/api/shelf/own-cuts/{own_id}/restore', { params: of(id) })),
)
const removeCooker = removing(
  (id, version) => call(api.POST('/api/shelf/own-cookers/{own_id}/remove', { params: of(id), body: { version } })),
  (id) => call(api.POST('/api/shelf/own-cookers/{own_id}/restore', { params: of(id) })),
)
</script>

<template>
  <section class="plate own" aria-label="Your own ingredients, cuts and cookers">
    <OwnList
      v-slot="{ one }"
      title="Your own ingredients"
      what="What the catalogue does not have: from its packet, from amounts, or as another one with changes."
      :rows="own"
      :failed="error ? sentenceOf(error) : undefined"
      @edit="editIngredient"
      @remove="removeIngredient"
    >
      <template v-if="one.reads">{{ percent(one.reads.salt) }} salt, {{ percent(one.reads.sugars) }} sugar</template>
    </OwnList>
    <OwnList
      v-slot="{ one }"
      title="Your own cuts"
      what="What your butcher cuts otherwise: the nearest cut, three measures, its bone, its faces, what comes off."
      :rows="ownCuts"
      :failed="noCuts ? sentenceOf(noCuts) : undefined"
      @edit="editCut"
      @remove="removeCut"
    >
      <template v-if="one.reads">{{ show.area(one.reads.area_cm2) }} at {{ show.mass(one.reads.mass_g) }}</template>
    </OwnList>
    <OwnList
      v-slot="{ one }"
      title="Your own cookers"
      what="What you cook on: its kind, and what of yours is otherwise: grate, range, hot side, how long it takes."
      :rows="ownCookers"
      :failed="noCookers ? sentenceOf(noCookers) : undefined"
      @edit="editCooker"
      @remove="removeCooker"
    >
      <template v-if="one.reads"
        >{{ show.area(one.reads.grate_cm2) }}, {{ show.temperature(one.reads.low_c) }} to
        {{ show.temperature(one.reads.high_c) }}</template
      >
    </OwnList>
    <template v-if="names?.length">
      <h3>What you call things</h3>
      <ul class="rows">
        <li v-for="one in names" :key="one.name">
          <span
            ><b>{{ one.name }}</b> is {{ meant(one.means ?? '') }}</span
          >
          <v-btn class="quiet" :aria-label="`Forget ${one.name}`" @click="forget(one.name)">Forget it</v-btn>
        </li>
      </ul>
    </template>
    <OwnIngredient v-model="openIngredient" :own="ingredient" />
    <OwnCut v-model="openCut" :own="cut" />
    <OwnCooker v-model="openCooker" :own="cooker" />
  </section>
</template>

<style scoped>
.own {
  padding: var(--s-16) var(--s-20);
  margin-top: var(--s-16);
}
h3 {
  margin: var(--s-14) 0 0;
  font-size: var(--t-l);
}
</style>
