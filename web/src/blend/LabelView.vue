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
import { bandsOf } from './bands'
import LabelForm from './LabelForm.vue'
import type { Doc } from './useBlend'

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
    lines: found.value!.lines,
    written: 'percent',
    base: 0,
    total: 'fixed',
    targets: [],
    uses: [],
    method: [],
    label: found.value!.label!,
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
          <label
            >Name<input v-model="name" maxlength="80" placeholder="what you call it; no maker’s name needed"
          /></label>
          <label
            >Kind<select v-model="kind">
              <option v-for="of in kinds" :key="of">{{ of }}</option>
            </select></label
          >
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
  gap: 18px;
  align-items: start;
}
.entry {
  padding: 18px 22px;
  display: grid;
  gap: 16px;
}
.head {
  display: grid;
  grid-template-columns: 1fr 160px;
  gap: 14px;
}
.head label {
  font-size: 13px;
  color: var(--muted);
  display: grid;
  gap: 4px;
}
aside {
  display: grid;
  gap: 14px;
}
.answer {
  padding: 16px 22px;
}
.answer p {
  margin: 0;
  color: #d7dff5;
  font-size: 14px;
}
.answer .big {
  font-size: 28px;
  line-height: 1.1;
  margin-bottom: 4px;
  color: #fff;
}
@media (max-width: 1060px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
