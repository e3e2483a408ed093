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
      <div class="kinds" role="group" aria-label="Kind of blend">
        <button v-for="one in kinds" :key="one" type="button" :aria-pressed="kind === one" @click="kind = one">
          {{ one }}
        </button>
      </div>
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
  gap: 16px;
}
.lead {
  max-width: 64ch;
  font-size: 18px;
  margin: 0;
}
section {
  padding: 18px 22px 20px;
}
h2 {
  display: flex;
  gap: 12px;
  align-items: center;
  margin-bottom: 12px;
}
h2 i {
  display: inline-grid;
  place-items: center;
  width: 32px;
  height: 32px;
  border-radius: 50%;
  border: 2px solid var(--rim);
  font-style: normal;
  font-size: 17px;
  color: var(--link);
}
p {
  margin: 0 0 12px;
}
.units {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(220px, 1fr));
  gap: 14px 20px;
}
.ways,
.kinds {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 12px;
  align-items: center;
}
.kinds {
  gap: 4px;
  margin-bottom: 10px;
}
.kinds button {
  padding: 0 12px;
  min-height: var(--tap);
  border-radius: 19px;
  font-size: 14px;
  color: var(--muted);
}
.kinds button[aria-pressed='true'] {
  background: var(--tint);
  box-shadow: 0 0 0 1.5px var(--rim);
  color: var(--ink);
  font-weight: 600;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(240px, 1fr));
  gap: 14px;
}
.ways {
  margin-bottom: 12px;
}
.ratio {
  padding: 0;
  display: grid;
  gap: 6px;
  width: 100%;
  text-align: left;
  align-content: start;
  line-height: 1.3;
}
.ratio:hover b {
  text-decoration: underline;
}
.ratio .muted {
  font-size: 14px;
}
.made {
  margin: 12px 0 0;
}
</style>
