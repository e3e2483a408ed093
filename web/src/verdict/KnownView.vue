<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { useCatalogue } from '../api/catalogue'
import { api, call, sentenceOf } from '../api/client'
import { longDay } from '../kit/units'
import SaltPlate from './SaltPlate.vue'
import { counted, upper, useQuestion } from './useQuestion'

/** What we know, in sentences: pair by pair, the salt, what was decided; to be read out or printed. */
const { to } = useQuestion()
const { cuts } = useCatalogue()
const { data: known, error } = useQuery({
  queryKey: ['verdicts', 'known'],
  queryFn: () => call(api.GET('/api/verdicts/known')),
})
const DONE = { keep: 'Keep', change: 'Change', drop: 'Drop' }
const print = () => window.print()
</script>

<template>
  <main class="known">
    <header class="station-head">
      <div>
        <h1>What we know</h1>
        <p v-if="known" class="muted">{{ counted(known.cooks, 'tasting') }}, {{ counted(known.cards, 'card') }}</p>
      </div>
      <span class="tools">
        <v-btn :to="to('/verdict')">All cuts</v-btn>
        <v-btn class="solid" @click="print">Print</v-btn>
      </span>
    </header>
    <p v-if="error" role="status">{{ sentenceOf(error) }}</p>
    <div v-if="known" class="columns">
      <div class="pairs">
        <p v-if="!known.pairs.length">Nothing was tasted and revealed yet; what comes of it will stand here.</p>
        <section v-for="pair in known.pairs" :key="`${pair.kind} ${pair.first} ${pair.second}`" class="plate">
          <h2>{{ upper(pair.names[0] ?? '') }} or {{ pair.names[1] }}</h2>
          <ul v-if="pair.known.length" class="said">
            <li v-for="sentence in pair.known" :key="sentence">{{ sentence }}</li>
          </ul>
          <p v-for="trait in pair.traits" :key="trait.key">{{ trait.says }}</p>
          <template v-if="pair.unknown.length">
            <h3>Not yet known</h3>
            <ul class="said muted">
              <li v-for="sentence in pair.unknown" :key="sentence">{{ sentence.replace(': not yet known.', ':') }}</li>
            </ul>
          </template>
          <p v-for="sentence in pair.says" :key="sentence" class="muted">{{ sentence }}</p>
        </section>
      </div>
      <aside>
        <SaltPlate />
        <section v-if="known.decisions.length" class="plate">
          <h2>Decided</h2>
          <ul class="said">
            <li v-for="one in known.decisions" :key="one.id">
              <b>{{ DONE[one.what] }} {{ one.name }}</b
              >{{ one.cut ? ` for ${(cuts.get(one.cut)?.name ?? one.cut).toLowerCase()}` : '' }}: {{ one.reason }}
              <span class="muted">{{ longDay(one.at) }}</span>
            </li>
          </ul>
        </section>
        <p class="muted">Safe temperatures and times follow your local food-safety rules, whatever is liked better.</p>
      </aside>
    </div>
  </main>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 340px;
  gap: var(--s-20);
  align-items: start;
}
.pairs,
aside {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--s-20);
  min-width: 0;
}
section.plate {
  padding: var(--s-20) var(--s-24);
}
.said {
  list-style: none;
  margin: var(--s-8) 0 0;
  padding: 0;
}
.said li {
  padding: var(--s-6) 0;
  border-top: 1px solid var(--line);
}
h3 {
  margin-top: var(--s-14);
  font-size: var(--t-l);
}
p {
  margin: var(--s-8) 0 0;
}
@media (max-width: 1100px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
@media print {
  .columns {
    display: block;
  }
  section.plate {
    border: 0;
    box-shadow: none;
    padding: 0 0 12px;
    break-inside: avoid;
  }
  .tools {
    display: none;
  }
}
</style>
