<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, call, sentenceOf, type Schemas } from '../api/client'
import { useCatalogue } from '../api/catalogue'
import { longDay } from '../kit/units'
import Why from '../kit/Why.vue'
import LikingPicture from './LikingPicture.vue'
import NumberedPlate from '../table/NumberedPlate.vue'
import TastingList from '../table/TastingList.vue'
import OddCount from './OddCount.vue'
import PairsPlate from './PairsPlate.vue'
import PreferenceCount from './PreferenceCount.vue'
import WhatExplains from './WhatExplains.vue'

/** What one trial says. */
const props = defineProps<{ id: string }>()
type Verdict = Schemas['VerdictOut']

const { cuts } = useCatalogue()
const { data: verdict, error } = useQuery({
  queryKey: ['verdict', () => props.id],
  queryFn: (): Promise<Verdict> =>
    call(api.GET('/api/trials/{trial_id}/verdict', { params: { path: { trial_id: props.id } } })),
  gcTime: 0,
})

const reading = computed(() => verdict.value?.reading)
const inPercent = (p: number) => (p >= 0.1 ? `${(p * 100).toFixed(0)} %` : `${(p * 100).toFixed(p < 0.01 ? 2 : 1)} %`)
const more = computed(() => reading.value?.cards_more?.value ?? 0)
/** A preference is looked at card by card; all else is read once, at the reveal. */
const looks = computed(() => verdict.value?.kind === 'preference' && reading.value?.state !== 'no cards')
</script>

<template>
  <main>
    <h1>{{ verdict ? verdict.question : 'Verdict' }}</h1>
    <p v-if="verdict" class="muted sub">
      {{ cuts.get(verdict.cut)?.name }}, {{ verdict.cook }}, {{ longDay(verdict.serve_at) }}
    </p>
    <p v-if="error" class="muted">{{ sentenceOf(error) }}</p>
    <div v-if="verdict" class="columns">
      <div class="found">
        <section class="answer" aria-label="Verdict">
          <p class="big upper">{{ verdict.missing ? 'Nothing to taste against' : reading?.headline }}</p>
          <p v-if="verdict.missing">{{ verdict.missing }}</p>
          <template v-else>
            <p v-for="sentence in reading?.says" :key="sentence">{{ sentence }}</p>
            <p v-if="reading?.probability">
              <Why :figure="reading.probability" of="Chance of a result so clear">How that is worked out</Why>
            </p>
          </template>
          <p v-if="looks && reading?.bound">
            This trial stated {{ verdict.planned_cards }} cards, and names a winner at
            <Why :figure="reading.bound" of="What names a winner">{{ inPercent(reading.bound.value) }}</Why> or less, so
            that all its looks together are wrong in at most 5 %.
          </p>
          <p v-if="verdict.cards_beyond">
            {{ verdict.cards_beyond }} {{ verdict.cards_beyond === 1 ? 'card' : 'cards' }} came after those it stated,
            or after the reveal, and {{ verdict.cards_beyond === 1 ? 'does' : 'do' }} not count.
          </p>
          <p v-if="reading?.state === 'not yet known' && reading.cards_more">
            At least
            <Why :figure="reading.cards_more" of="Cards still needed"
              >{{ more }} more {{ more === 1 ? 'card' : 'cards' }}</Why
            >
            would do, if all of them agree with the plate ahead.
          </p>
          <p v-if="looks && reading?.state === 'no winner'">
            Even if all cards that are left agreed, they would not name one. Begin a copy of this cook for another
            trial.
          </p>
          <v-btn
            v-if="reading?.state === 'no cards' && !verdict.missing"
            class="on-dark"
            :to="`/table/${verdict.trial_id}`"
            >Taste and score at the table</v-btn
          >
          <p v-if="reading?.state === 'winner' && (verdict.differs.length || verdict.changes_two)">
            <b>Not a clean pair.</b> {{ verdict.differs.map((difference) => difference.sentence).join(' ') }}
            {{ verdict.changes_two ? 'It changed more than one thing.' : '' }}
          </p>
          <p v-if="!verdict.revealed" class="hidden">Which is which stays hidden until the reveal at the table.</p>
        </section>
        <p v-if="verdict.cards.length">
          <router-link :to="`/table/${verdict.trial_id}`" class="link">{{
            verdict.revealed ? 'To the table' : 'Add another card'
          }}</router-link>
        </p>
        <div v-if="reading?.state === 'kept' || (!verdict.cards.length && !verdict.missing)" class="await">
          <template v-for="side in verdict.sides" :key="side.codes[0]">
            <NumberedPlate v-for="code in side.codes" :key="code" :code="code" :size="150" />
          </template>
        </div>
        <template v-else-if="verdict.cards.length">
          <OddCount v-if="verdict.kind === 'triangle'" :verdict="verdict" />
          <PreferenceCount v-else :verdict="verdict" />
          <LikingPicture v-if="verdict.liking.length" :verdict="verdict" />
          <PairsPlate v-if="verdict.revealed" :verdict="verdict" />
          <WhatExplains :verdict="verdict" />
        </template>
      </div>
      <aside>
        <section v-if="verdict.revealed">
          <h2>What muddies it</h2>
          <p v-for="difference in verdict.differs" :key="difference.sentence">{{ difference.sentence }}</p>
          <p v-if="verdict.changes_two">{{ verdict.changes_two }}</p>
          <p v-if="!verdict.differs.length && !verdict.changes_two">Nothing recorded differs but the seasoning.</p>
          <p v-if="verdict.unknown.length" class="muted">Not recorded: {{ verdict.unknown.join(', ') }}.</p>
        </section>
        <p><router-link to="/verdict" class="link">Over all cooks and cuts</router-link></p>
        <TastingList to="verdict" :current="id" />
      </aside>
    </div>
  </main>
</template>

<style scoped>
.sub {
  margin: var(--s-2) 0 var(--s-16);
}
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 300px;
  gap: var(--s-32);
  align-items: start;
}
.found {
  display: grid;
  gap: var(--s-16);
}
.found > p {
  margin: 0;
}
.answer {
  padding: var(--s-20) var(--s-24);
}
.answer p {
  margin: var(--s-6) 0 0;
  color: var(--on-deep-soft);
  max-width: 62ch;
}
.answer .big {
  font-size: var(--t-huge);
  line-height: 1.05;
  margin: 0;
  color: #fff;
}
.upper::first-letter {
  text-transform: uppercase;
}
.link {
  font-weight: 600;
}
.await {
  display: flex;
  gap: 40px;
  justify-content: center;
  padding: var(--s-32);
}
aside {
  display: grid;
  gap: var(--s-24);
}
aside p {
  margin: var(--s-6) 0 0;
  font-size: var(--t-m);
}
@media (max-width: 1000px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
  .answer .big {
    font-size: var(--t-big);
  }
}
</style>
