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
import PreferenceCount from './PreferenceCount.vue'
import { sure } from '../kit/sure'

const props = defineProps<{ id?: string }>()
type Verdict = Schemas['VerdictOut']

const { cuts } = useCatalogue()
const { data: cooks } = useQuery({ queryKey: ['cooks'], queryFn: () => call(api.GET('/api/cooks')) })
/** The cook in hand comes first, also where nobody has tasted it yet. */
const trial = computed(() => {
  const tasted = cooks.value?.filter((cook) => cook.trial) ?? []
  return (
    props.id ??
    (tasted.find((cook) => cook.in_hand) ?? tasted.find((cook) => cook.trial?.cards) ?? tasted[0])?.trial?.id
  )
})
const { data: verdict, error } = useQuery({
  queryKey: ['verdict', trial],
  queryFn: (): Promise<Verdict> =>
    call(api.GET('/api/trials/{trial_id}/verdict', { params: { path: { trial_id: sure(trial.value) } } })),
  enabled: computed(() => !!trial.value),
  gcTime: 0,
})

const called = (at: number) => {
  const side = verdict.value?.sides[at]
  return side?.name ?? `plate ${side?.code}`
}
const prefer = (at: number) => {
  const n = verdict.value?.sides[at]?.preferred ?? 0
  return `${n} ${n === 1 ? 'prefers' : 'prefer'} ${called(at).toLowerCase()}`
}
const heading = computed(() => {
  const found = verdict.value
  if (!found) return ''
  if (found.missing) return 'Nothing to taste against'
  if (found.state === 'no cards') return 'No card is in yet'
  if (found.state === 'winner') return `${called(found.winner ?? 0)} won`
  return found.state === 'no winner' ? 'No winner' : 'Not yet known'
})
const inPercent = (p: number) => (p >= 0.1 ? `${(p * 100).toFixed(0)} %` : `${(p * 100).toFixed(p < 0.01 ? 2 : 1)} %`)
const chance = computed(() => inPercent(verdict.value?.probability.value ?? 1))
const more = computed(() => verdict.value?.cards_more?.value ?? 0)
const aboutSalt = computed(() => verdict.value?.differs.some((difference) => difference.what === 'salt') ?? false)
</script>

<template>
  <main>
    <h1>{{ verdict ? verdict.question : 'Verdict' }}</h1>
    <p v-if="verdict" class="muted sub">
      {{ cuts.get(verdict.cut)?.name }}, {{ verdict.cook }}, {{ longDay(verdict.serve_at) }}
    </p>
    <p v-if="error" class="muted">{{ sentenceOf(error) }}</p>
    <p v-else-if="cooks && !trial" class="muted">
      Nothing was tasted yet. <router-link to="/">Begin a cook</router-link>
    </p>
    <div v-if="verdict" class="columns">
      <div class="found">
        <section class="answer" aria-label="Verdict">
          <p class="big" :class="{ upper: true }">{{ heading }}</p>
          <p v-if="verdict.missing">{{ verdict.missing }}</p>
          <p v-if="verdict.state !== 'no cards' && !verdict.missing">
            {{ prefer(0) }}, {{ prefer(1)
            }}<template v-if="verdict.no_preference">, {{ verdict.no_preference }} neither</template>. Chance alone
            splits this lopsided in
            <Why :figure="verdict.probability" of="Chance of a split this lopsided">{{ chance }}</Why> of tastings.
          </p>
          <p v-if="verdict.state !== 'no cards'">
            This trial stated {{ verdict.planned_cards }} cards, and names a winner at
            <Why :figure="verdict.bound" of="What names a winner">{{ inPercent(verdict.bound.value) }}</Why> or less, so
            that all its looks together are wrong in at most 5 %.
            <template v-if="verdict.cards_beyond">
              {{ verdict.cards_beyond }} {{ verdict.cards_beyond === 1 ? 'card' : 'cards' }} came after those and
              {{ verdict.cards_beyond === 1 ? 'does' : 'do' }} not count.
            </template>
          </p>
          <p v-if="verdict.state === 'not yet known' && verdict.cards_more">
            At least
            <Why :figure="verdict.cards_more" of="Cards still needed"
              >{{ more }} more {{ more === 1 ? 'card' : 'cards' }}</Why
            >
            would do, if all of them agree with the plate ahead.
          </p>
          <p v-if="verdict.state === 'no winner'">
            Even if all cards that are left agreed, they would not name one. Begin a copy of this cook for another
            trial.
          </p>
          <p v-if="verdict.state === 'no cards'">
            This trial states {{ verdict.planned_cards }} cards; it is first looked at with eight, or with fewer if it
            stated so.
          </p>
          <v-btn
            v-if="verdict.state === 'no cards' && !verdict.missing"
            class="on-dark"
            :to="`/table/${verdict.trial_id}`"
            >Taste and score at the table</v-btn
          >
          <p v-if="verdict.state === 'winner' && verdict.differs.length">
            <b>Not a clean pair.</b> {{ verdict.differs.map((difference) => difference.sentence).join(' ') }}
          </p>
          <p v-if="!verdict.revealed" class="hidden">Which is which stays hidden until the reveal at the table.</p>
        </section>
        <p v-if="verdict.cards.length">
          <router-link :to="`/table/${verdict.trial_id}`" class="link">{{ 'Add another card' }}</router-link>
        </p>
        <div v-if="!verdict.cards.length && !verdict.missing" class="await">
          <NumberedPlate v-for="side in verdict.sides" :key="side.code" :code="side.code" :size="150" />
        </div>
        <template v-if="verdict.cards.length">
          <PreferenceCount :verdict="verdict" />
          <LikingPicture :verdict="verdict" />
        </template>
      </div>
      <aside>
        <section v-if="verdict.revealed">
          <h2>What muddies it</h2>
          <p v-for="difference in verdict.differs" :key="difference.what">{{ difference.sentence }}</p>
          <table v-if="aboutSalt" class="votes">
            <caption>
              What the cards say of the salt
            </caption>
            <thead>
              <tr>
                <td />
                <th scope="col">too little</th>
                <th scope="col">just right</th>
                <th scope="col">too much</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="(side, n) in verdict.sides" :key="side.code">
                <th scope="row">{{ called(n) }}</th>
                <td>{{ sure(verdict.salt[n]).too_little }}</td>
                <td>{{ sure(verdict.salt[n]).just_right }}</td>
                <td>{{ sure(verdict.salt[n]).too_much }}</td>
              </tr>
            </tbody>
          </table>
          <p v-if="!verdict.differs.length">Nothing recorded differs but the seasoning.</p>
          <p v-if="verdict.unknown.length" class="muted">Not recorded: {{ verdict.unknown.join(', ') }}.</p>
        </section>
        <TastingList to="verdict" :current="trial" />
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
.votes {
  border-collapse: collapse;
  margin: var(--s-10) 0 var(--s-4);
  font-size: var(--t-s);
  width: 100%;
}
.votes caption {
  text-align: left;
  font-weight: 600;
  padding-bottom: var(--s-4);
}
.votes th,
.votes td {
  padding: var(--s-4) 0;
  border-top: 1px solid var(--line);
  font-variant-numeric: tabular-nums;
}
.votes thead th {
  font-weight: 400;
  color: var(--muted);
  border: 0;
}
.votes th[scope='row'] {
  text-align: left;
  font-weight: 400;
}
.votes td,
.votes thead th {
  text-align: right;
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
