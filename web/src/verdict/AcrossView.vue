<script setup lang="ts">
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { useCatalogue } from '../api/catalogue'
import { api, call, sentenceOf } from '../api/client'
import Choice from '../kit/Choice.vue'
import TastingList from '../table/TastingList.vue'
import CutAnswer from './CutAnswer.vue'
import GrainRows from './GrainRows.vue'
import MatrixPlates from './MatrixPlates.vue'
import NextPlate from './NextPlate.vue'
import QuestionPanel from './QuestionPanel.vue'
import { counted, fileOf, upper, useQuestion } from './useQuestion'

/** Two ways over all cuts: a row a cut, the chosen one's answer beside it, and what to cook next. */
const { asked, ask, to } = useQuestion()
const { cuts } = useCatalogue()
const { data: across, error } = useQuery({
  queryKey: computed(() => ['verdicts', 'rows', asked.value]),
  queryFn: () => call(api.GET('/api/verdicts', { params: { query: asked.value } })),
  placeholderData: keepPreviousData,
})
const page = computed(() => across.value?.page)
const another = ref(false)
const chosen = ref('')
watch(page, (now) => {
  const rows = now?.rows ?? []
  if (!rows.some((row) => row.cut === chosen.value))
    chosen.value = (rows.find((row) => row.state !== 'not yet known') ?? rows[0])?.cut ?? ''
}, { immediate: true }) // prettier-ignore
const row = computed(() => page.value?.rows.find((one) => one.cut === chosen.value))
const name = (cut: string) => cuts.value.get(cut)?.name ?? cut
const { data: cell } = useQuery({
  queryKey: computed(() => ['verdicts', 'cell', chosen.value, asked.value]),
  queryFn: () => call(api.GET('/api/verdicts/cell', { params: { query: { ...asked.value, cut: chosen.value } } })),
  enabled: computed(() => !!row.value),
})
const reading = computed(() => (cell.value?.cut === chosen.value ? cell.value.reading : undefined))
const known = computed(() => {
  const by = (state: string) => (page.value?.rows ?? []).filter((one) => one.state === state).map((one) => name(one.cut).toLowerCase()) // prettier-ignore
  return { first: by('first'), second: by('second'), same: by('no matter') }
})
const who = computed({
  get: () => (asked.value.who ?? 'table') as string,
  set: (value) => void ask({ who: value as 'table' | 'guest' }),
})
const question = computed(() => across.value && { kind: across.value.kind, first: across.value.first, second: across.value.second }) // prettier-ignore
const some = computed(() => Object.keys(asked.value).some((key) => !['kind', 'first', 'second', 'who'].includes(key)))
</script>

<template>
  <main>
    <header class="station-head">
      <div>
        <h1>{{ page ? `${upper(page.names[0] ?? '')} or ${page.names[1]}?` : 'Verdict' }}</h1>
        <p v-if="across && page" class="muted">
          {{ counted(across.cooks, 'cook') }}, {{ counted(page.rows.length, 'cut') }}, {{ counted(across.cards, 'card')
          }}{{ some ? ', only some of the book' : '' }}
        </p>
      </div>
      <span class="tools">
        <Choice
          v-model="who"
          label="For whom"
          hidden-label
          :options="[
            { value: 'table', text: 'For this table' },
            { value: 'guest', text: 'For a guest' },
          ]"
        />
        <v-btn @click="another = true">Another question</v-btn>
        <v-btn :to="to('/verdict/known')">What we know</v-btn>
      </span>
    </header>
    <p v-if="error" role="status">{{ sentenceOf(error) }}</p>
    <div v-if="across && page" class="columns">
      <div class="rows">
        <GrainRows v-if="page.rows.length" v-model="chosen" :page="page" />
        <section v-else class="plate nothing">
          <h2>Nothing was tasted of this yet</h2>
          <p>Begin a cook of two pieces, taste them blind at the table, and reveal which was which.</p>
        </section>
      </div>
      <MatrixPlates class="matrix" :asked="asked" @ask="ask" />
      <aside>
        <CutAnswer v-if="row" :row="row" :name="name(row.cut)" :held="reading?.held_says">
          <p class="more">
            <router-link :to="to(`/verdict/cut/${row.cut}`)" class="link">Open the evidence</router-link>
          </p>
        </CutAnswer>
        <section v-if="reading?.carries_says.length">
          <h2>What carries it</h2>
          <p v-for="sentence in reading.carries_says.slice(0, 3)" :key="sentence">{{ sentence }}</p>
        </section>
        <section v-if="reading">
          <h2>What muddies it</h2>
          <p v-for="one in reading.muddies" :key="one.what">{{ one.says }}</p>
          <p v-if="!reading.muddies.length" class="muted">Nothing recorded differs but the seasoning.</p>
        </section>
        <NextPlate v-if="question && page.rows.length" :asked="asked" :question="question" />
        <section>
          <h2>Known so far</h2>
          <p v-if="known.first.length">
            <b class="a">{{ upper(page.names[0] ?? '') }}</b>: {{ known.first.join(', ') }}.
          </p>
          <p v-if="known.second.length">
            <b class="b">{{ upper(page.names[1] ?? '') }}</b>: {{ known.second.join(', ') }}.
          </p>
          <p v-if="known.same.length"><b>No matter</b>: {{ known.same.join(', ') }}.</p>
          <p v-for="trait in page.traits" :key="trait.key">{{ trait.says }}</p>
          <p v-for="sentence in page.says" :key="sentence">{{ sentence }}</p>
          <p v-for="one in across.left_out" :key="one.cook_id" class="muted">
            Left out, {{ one.cook }}: {{ one.says }}
          </p>
        </section>
        <section>
          <h2>Take it away</h2>
          <p class="files">
            <a :href="fileOf('verdict.md', asked)" class="link" download>Verdict, Markdown</a>
            <a :href="fileOf('cards.csv', asked)" class="link" download>Cards, CSV</a>
            <a :href="fileOf('posterior.csv', asked)" class="link" download>Belief, CSV</a>
          </p>
        </section>
        <TastingList to="verdict" />
      </aside>
    </div>
    <QuestionPanel v-if="across" v-model="another" :across="across" :asked="asked" @ask="ask" />
  </main>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template: 'rows aside' auto 'matrix aside' 1fr / minmax(0, 1fr) 340px;
  gap: var(--s-20);
  align-items: start;
}
.columns > .rows {
  grid-area: rows;
  margin: 0;
}
.columns > .matrix {
  grid-area: matrix;
}
aside {
  grid-area: aside;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--s-20);
}
aside section > p {
  margin: var(--s-6) 0 0;
  font-size: var(--t-m);
}
.more {
  margin: var(--s-10) 0 0;
  font-weight: 600;
}
.nothing {
  padding: var(--s-24);
}
.a {
  color: var(--piece-a);
}
.b {
  color: var(--piece-b);
}
.files {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s-6) var(--s-20);
}
.tools {
  flex-wrap: wrap;
}
@media (max-width: 1100px) {
  .columns {
    grid-template: 'rows' 'aside' 'matrix' / minmax(0, 1fr);
  }
}
</style>
