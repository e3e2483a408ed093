<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { useCatalogue } from '../api/catalogue'
import { api, call, sentenceOf } from '../api/client'
import CutAnswer from './CutAnswer.vue'
import DecidePlate from './DecidePlate.vue'
import EvidenceStrip from './EvidenceStrip.vue'
import GrowthPicture from './GrowthPicture.vue'
import NextPlate from './NextPlate.vue'
import { upper, useQuestion } from './useQuestion'

/** One cut's evidence: every cook and card, what carries and muddies it, how belief grew; what is decided and next. */
const props = defineProps<{ cut: string }>()
const { asked, to } = useQuestion()
const { cuts } = useCatalogue()
const { data: cell, error } = useQuery({
  queryKey: computed(() => ['verdicts', 'cell', props.cut, asked.value]),
  queryFn: () => call(api.GET('/api/verdicts/cell', { params: { query: { ...asked.value, cut: props.cut } } })),
})
const reading = computed(() => cell.value?.reading)
const name = computed(() => cuts.value.get(props.cut)?.name ?? props.cut)
const question = computed(() => cell.value && { kind: cell.value.kind, first: cell.value.first, second: cell.value.second }) // prettier-ignore
</script>

<template>
  <main>
    <header class="station-head">
      <div>
        <h1>{{ name }}</h1>
        <p v-if="cell" class="muted">{{ upper(cell.names[0] ?? '') }} or {{ cell.names[1] }}?</p>
      </div>
      <span class="tools"><v-btn :to="to('/verdict')">All cuts</v-btn></span>
    </header>
    <p v-if="error" role="status">{{ sentenceOf(error) }}</p>
    <p v-else-if="cell && !reading">Nobody scored both of these yet, so there is nothing to go by.</p>
    <div v-if="cell && reading && question" class="columns">
      <div class="main">
        <EvidenceStrip :cell="cell" :reading="reading" />
        <section v-if="reading.grown.length" class="plate grew" aria-labelledby="grew">
          <h2 id="grew">How belief grew</h2>
          <GrowthPicture :grown="reading.grown" :names="cell.names" :about="`${name}, how belief grew`" />
        </section>
      </div>
      <CutAnswer class="told" :row="reading.row" :name="name" :held="reading.held_says" />
      <aside>
        <section>
          <h2>What carries it</h2>
          <p v-for="sentence in reading.carries_says" :key="sentence">{{ sentence }}</p>
          <p v-for="sentence in reading.tasters_says" :key="sentence">{{ sentence }}</p>
        </section>
        <section>
          <h2>What muddies it</h2>
          <p v-for="one in reading.muddies" :key="one.what">{{ one.says }}</p>
          <p v-if="!reading.muddies.length" class="muted">Nothing recorded differs but the seasoning.</p>
        </section>
        <DecidePlate :question="question" :names="cell.names" :cut="cut" :decisions="cell.decisions" />
        <NextPlate :asked="asked" :question="question" />
      </aside>
    </div>
  </main>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template: 'main told' auto 'main aside' 1fr / minmax(0, 1fr) 340px;
  gap: var(--s-20);
  align-items: start;
}
.told {
  grid-area: told;
}
.main,
aside {
  grid-area: main;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--s-20);
}
aside {
  grid-area: aside;
}
.grew {
  padding: var(--s-20) var(--s-24);
}
aside section > p {
  margin: var(--s-6) 0 0;
  font-size: var(--t-m);
}
@media (max-width: 1100px) {
  .columns {
    grid-template: 'told' 'main' 'aside' / minmax(0, 1fr);
  }
}
</style>
