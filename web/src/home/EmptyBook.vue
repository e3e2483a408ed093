<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, call, type Schemas } from '../api/client'
import { useChange } from '../api/change'
import { refresh } from '../api/kept'
import { bandsOfShares } from '../blend/bands'
import { usualBatch } from '../blend/kinds'
import { useCatalogue } from '../api/catalogue'
import GrainStrip from '../draw/GrainStrip.vue'
import Kinds from '../kit/Kinds.vue'
import UnitChoices from '../app/UnitChoices.vue'

/** An empty book: what this does, and three steps in. */
defineEmits<{ begin: [] }>()
const queries = useQueryClient()
const { catalogue, grinds } = useCatalogue()
const kinds = computed(() => [...new Set((catalogue.value?.starters ?? []).map((one) => one.kind))])
const kind = ref('dry rub')
const ratios = computed(() =>
  (catalogue.value?.starters ?? [])
    .filter((one) => one.kind === kind.value)
    .map((one) => ({ ...one, drawn: bandsOfShares(one.bands, grinds.value) })),
)
const made = ref<{ id: string; name: string }[]>([])
const take = useChange('blends', async (one: Schemas['StarterOut']) => {
  const body = { name: one.name, kind: one.kind, lines: one.lines, batch: usualBatch(one.kind) }
  const blend = await call(api.POST('/api/blends', { body: body as Schemas['BlendDocument'] }))
  made.value.push({ id: blend.id, name: blend.name })
  await refresh(queries, ['blends'])
})
</script>

<template>
  <div class="empty">
    <p class="lead">
      Mix rubs and marinades by ratio, dose them to the surface and the weight of the meat, know the salt before it is
      on, and find out which way your table likes better. Three steps, and the first piece is seasoned.
    </p>
    <section class="plate" aria-label="First step">
      <h2><i>1</i> What you measure with</h2>
      <div class="units"><UnitChoices /></div>
    </section>
    <section class="plate" aria-label="Second step">
      <h2><i>2</i> Something to season with</h2>
      <div class="ways">
        <v-btn to="/blend/bring">Paste a recipe</v-btn>
        <v-btn to="/blend/label">Copy a label</v-btn>
        <span>or take a ratio to start from:</span>
      </div>
      <Kinds v-model="kind" :kinds="kinds" label="Kind of blend" class="kinds" />
      <ul>
        <li v-for="one in ratios" :key="one.name">
          <button type="button" class="ratio" @click="take(one)">
            <GrainStrip :bands="one.drawn" :height="44" />
            <b>{{ one.name }}</b>
            <span class="muted">{{ one.says }}</span>
          </button>
        </li>
      </ul>
      <p v-for="one in made" :key="one.id" class="made" role="status">
        <router-link :to="`/blend/${one.id}`">{{ one.name }}</router-link> is in your book.
      </p>
    </section>
    <section class="plate" aria-label="Third step">
      <h2><i>3</i> Put it on a piece</h2>
      <p>A name and a cut are enough; the weight and the day can wait.</p>
      <v-btn class="solid" @click="$emit('begin')">Begin a cook</v-btn>
    </section>
  </div>
</template>

<style scoped>
.empty {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--s-16);
}
.lead {
  max-width: 64ch;
  font-size: var(--t-xl);
  margin: 0;
}
section {
  padding: var(--s-20) var(--s-24) var(--s-20);
}
h2 {
  display: flex;
  gap: var(--s-12);
  align-items: center;
  margin-bottom: var(--s-12);
}
h2 i {
  display: inline-grid;
  place-items: center;
  width: 32px;
  height: 32px;
  border-radius: 50%;
  border: 2px solid var(--rim);
  font-style: normal;
  font-size: var(--t-xl);
  color: var(--link);
}
p {
  margin: 0 0 var(--s-12);
}
.units {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(220px, 1fr));
  gap: var(--s-14) var(--s-20);
}
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s-8) var(--s-12);
  align-items: center;
}
.kinds {
  margin-bottom: var(--s-10);
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(240px, 1fr));
  gap: var(--s-14);
}
.ways {
  margin-bottom: var(--s-12);
}
.ratio {
  padding: 0;
  display: grid;
  gap: var(--s-6);
  width: 100%;
  text-align: left;
  align-content: start;
  line-height: 1.3;
}
.ratio:hover b {
  text-decoration: underline;
}
.ratio .muted {
  font-size: var(--t-s);
}
.made {
  margin: var(--s-12) 0 0;
}
</style>
