<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref, shallowRef } from 'vue'
import { useRouter } from 'vue-router'
import { api, call, type Schemas } from '../api/client'
import { useChange } from '../api/change'
import { refresh } from '../api/kept'
import { useCatalogue } from '../api/catalogue'
import GrainStrip from '../draw/GrainStrip.vue'
import { percent } from '../kit/units'
import Why from '../kit/Why.vue'
import Field from '../kit/Field.vue'
import Select from '../kit/Select.vue'
import { bandsOf } from './bands'
import LabelForm from './LabelForm.vue'
import type { Doc } from './useBlend'
import { sure } from '../kit/sure'

/** A bought blend, whose recipe nobody knows, entered from its label. */
const router = useRouter()
const queries = useQueryClient()
const { grinds } = useCatalogue()
const name = ref('')
const kind = ref<Doc['kind']>('dry rub')
const label = ref<Schemas['LabelDocument']>({
  portion: '', sodium: '', sodium_as: 'sodium', sugars: '', fat: '', rule: 'us', minor_from: null, stated: [],
}) // prettier-ignore
const ingredients = ref('')
const found = shallowRef<Schemas['LabelOut'] | null>(null)
const reading = computed(() => found.value?.reading ?? null)
const bands = computed(() => bandsOf(reading.value, grinds.value))
const kinds: Doc['kind'][] = ['dry rub', 'paste', 'marinade', 'glaze', 'finishing salt']

const keep = useChange('blends', async () => {
  const body: Doc = {
    name: name.value.trim() || 'Bought blend',
    kind: kind.value,
    fire: '',
    batch: '100 g',
    lines: sure(found.value).lines,
    written: 'percent',
    base: 0,
    total: 'fixed',
    targets: [],
    uses: [],
    method: [],
    label: sure(sure(found.value).label),
  }
  const made = await call(api.POST('/api/blends', { body }))
  await refresh(queries, ['blends'])
  await router.push(`/blend/${made.id}`)
})
</script>

<template>
  <main>
    <header class="station-head">
      <div>
        <h1>A bought blend, from its label</h1>
        <p class="muted">
          Its recipe stays the maker’s, but the panel and the order of the ingredients narrow it down. What stays open
          is shown wherever the blend is used.
        </p>
      </div>
    </header>
    <div class="two">
      <section class="plate entry" aria-label="The label">
        <div class="head">
          <Field v-model="name" label="Name" :maxlength="80" placeholder="what you call it; no maker’s name needed" />
          <Select v-model="kind" label="Kind" :options="kinds.map((of) => ({ value: of, title: of }))" />
        </div>
        <LabelForm
          v-model:label="label"
          v-model:ingredients="ingredients"
          :kind="kind"
          batch="100 g"
          @read="found = $event"
        />
      </section>
      <aside>
        <div class="answer">
          <template v-if="reading">
            <p class="big">
              <Why :figure="reading.salt" of="Salt in the bought blend"
                >{{ percent(reading.salt.low ?? 0) }} to {{ percent(reading.salt.high ?? 0) }}</Why
              >
            </p>
            <p>salt, most likely about {{ Number(reading.salt.value.toPrecision(2)) }} %</p>
          </template>
          <template v-else>
            <p class="big">Not known yet</p>
            <p v-if="found?.unknown">
              Choose what comes closest to
              {{
                found.names
                  .filter((one) => !one.grind)
                  .map((one) => `“${one.name}”`)
                  .join(', ')
              }}.
            </p>
            <p v-else>Copy the portion, its sodium and the list of ingredients.</p>
          </template>
        </div>
        <GrainStrip v-if="bands.length" :bands="bands" :height="84" label="Most likely, by mass" />
        <v-btn class="solid" :disabled="!reading" @click="keep">Keep it among the blends</v-btn>
      </aside>
    </div>
  </main>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 330px;
  gap: var(--s-20);
  align-items: start;
}
.entry {
  padding: var(--s-20) var(--s-24);
  display: grid;
  gap: var(--s-16);
}
.head {
  display: grid;
  grid-template-columns: 1fr 160px;
  gap: var(--s-14);
}
.head label {
  font-size: var(--t-xs);
  color: var(--muted);
  display: grid;
  gap: var(--s-4);
}
aside {
  display: grid;
  gap: var(--s-14);
}
.answer {
  padding: var(--s-16) var(--s-24);
}
.answer p {
  margin: 0;
  color: var(--on-deep-soft);
  font-size: var(--t-s);
}
.answer .big {
  font-size: var(--t-h1);
  line-height: 1.1;
  margin-bottom: var(--s-4);
  color: #fff;
}
@media (max-width: 1060px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
