<script setup lang="ts">
import { computed, onMounted, ref, toRef } from 'vue'
import { useRoute } from 'vue-router'
import { sentenceOf } from '../api/client'
import FairTest from '../home/FairTest.vue'
import { say } from '../kit/notice'
import { time } from '../kit/units'
import { cardsOut, takeUp } from './cardsOut'
import LookDialog from './LookDialog.vue'
import NumberedPlate from './NumberedPlate.vue'
import SeatsDialog from './SeatsDialog.vue'
import ServingsPlate from './ServingsPlate.vue'
import TastingCard from './TastingCard.vue'
import TastingList from './TastingList.vue'
import { useFair, useTable, type Table } from './useTable'

/** Table: who tastes what in which order, how many cards are in, and the way to the card, the print and the reveal. */
const props = defineProps<{ id?: string }>()
const route = useRoute()
const { table, error, show, refetch } = useTable(toRef(props, 'id'))
const fair = useFair(computed(() => table.value?.trial_id))
const tasting = ref(false)
const whose = ref('')
const seating = ref(false)
const looking = ref('look' in route.query)
onMounted(() => void takeUp())

function taste(taster = '') {
  whose.value = taster
  tasting.value = true
}
function taken(now: Table | null, name: string) {
  tasting.value = false
  if (now) void show(now)
  else say(`${name}’s card is kept here and sent when the server is back.`)
}
const next = computed(() => table.value?.servings.find((one) => one.state === 'waits' && one.order.length))
const expected = computed(() => table.value?.servings.filter((one) => one.state === 'waits').length ?? 0)
const counted = computed(() => {
  const { cards = [], planned_cards: planned = 0 } = table.value ?? {}
  return `${cards.length || 'None'} of ${planned} cards ${cards.length === 1 ? 'is' : 'are'} in`
})
const mine = computed(() => cardsOut.value.filter((one) => one.trial === table.value?.trial_id))
</script>

<template>
  <main v-if="table">
    <TastingCard v-if="tasting" :table="table" :taster="whose" @taken="taken" @changed="show" @away="tasting = false" />
    <template v-else>
      <header class="station-head">
        <div>
          <h1>{{ table.cook }}</h1>
          <p class="muted">{{ table.question }}</p>
        </div>
        <span class="tools">
          <v-btn :to="`/table/${table.trial_id}/design`">Design</v-btn>
          <v-btn v-if="!table.missing" :to="`/table/${table.trial_id}/print`">Print</v-btn>
          <v-btn v-if="!table.missing" :to="`/table/${table.trial_id}/paper`">Paper cards</v-btn>
        </span>
      </header>
      <p v-if="mine.length" class="plate kept" role="status">
        {{ mine.length === 1 ? 'One card waits' : `${mine.length} cards wait` }} here for the server:
        {{ mine.map((one) => one.card.taster).join(', ') }}.
      </p>
      <div class="spread">
        <ServingsPlate v-if="!table.missing" :table="table" @changed="show" @taste="taste" @seats="seating = true" />
        <section v-else class="plate missing">
          <NumberedPlate v-for="code in table.codes" :key="code" :code="code" :size="150" />
          <p>{{ table.missing }}</p>
        </section>
        <div class="side">
          <section class="answer asks" aria-label="What is asked">
            <p class="big">{{ table.missing ? 'Nothing to taste against' : counted }}</p>
            <template v-if="!table.missing">
              <p v-if="table.revealed">It is told which plate is which; a card from now on is not blind.</p>
              <p v-else-if="next">Next: {{ next.taster }} tastes {{ next.order.join(', then ') }}.</p>
              <p v-else-if="!table.cards.length">{{ table.asks }}</p>
              <p v-else>Everybody who was seated has handed in.</p>
              <p v-if="table.waiting.until">
                Serve by {{ time(table.waiting.until) }}: the first left the fire at
                {{ time(table.waiting.first_off ?? '') }}. {{ table.waiting.says }}
              </p>
              <p v-else-if="table.waiting.says && !table.revealed" class="soft">{{ table.waiting.says }}</p>
            </template>
            <div class="ways">
              <v-btn v-if="table.missing" class="on-dark" :to="`/coat/${table.cook_id}`">To Coat</v-btn>
              <v-btn v-else-if="table.revealed" class="on-dark" :to="`/verdict/${table.trial_id}`"
                >See what the cards say</v-btn
              >
              <v-btn
                v-if="table.cards.length && !expected && !table.revealed"
                class="on-dark"
                :to="`/table/${table.trial_id}/reveal`"
                >Reveal which is which</v-btn
              >
              <v-btn v-if="!table.missing" class="on-dark" @click="taste()">Hand the phone round</v-btn>
            </div>
          </section>
          <FairTest v-if="fair && !table.missing" :fair="fair" compact />
          <section v-if="!table.missing" class="plate shows">
            <h2>What this table can show</h2>
            <p>{{ table.shows_says }}</p>
          </section>
          <TastingList to="table" :current="table.trial_id" class="others" />
        </div>
      </div>
      <p v-if="!table.missing" class="muted foot">
        <template v-if="table.revealed">
          <router-link class="link" :to="`/table/${table.trial_id}/reveal`">Turn the plates once more</router-link>
        </template>
        <template v-else>
          What lies behind a number is hidden on every screen until the reveal.
          <button type="button" class="link" @click="looking = true">Whoever plates looks here</button>; their card is
          not blind.
          <span v-if="table.seen_by.length">
            {{ table.seen_by.join(', ') }} {{ table.seen_by.length === 1 ? 'has' : 'have' }} seen the plating.
          </span>
          <router-link v-if="table.cards.length && expected" class="link" :to="`/table/${table.trial_id}/reveal`">
            Reveal now, though {{ expected }} {{ expected === 1 ? 'waits' : 'wait' }}
          </router-link>
        </template>
      </p>
      <SeatsDialog v-model="seating" :table="table" @changed="show" />
      <LookDialog v-model="looking" :trial="table.trial_id" @looked="refetch" />
    </template>
  </main>
  <main v-else>
    <h1>Table</h1>
    <p v-if="error" class="muted">{{ sentenceOf(error) }}</p>
    <p v-else-if="table === null" class="muted">
      Nothing is to be tasted yet. Tick two pieces of the cook in hand in <router-link to="/coat">Coat</router-link>, or
      <router-link to="/">begin a cook</router-link>.
    </p>
    <p v-else class="muted">Laying the table …</p>
    <TastingList v-if="table === null" to="table" />
  </main>
</template>

<style scoped src="./station.css"></style>
<style scoped>
.asks .soft {
  font-size: var(--t-m);
}
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s-8);
  margin-top: var(--s-14);
}
.shows,
.missing {
  padding: var(--s-20) var(--s-24);
}
.shows p {
  margin: var(--s-6) 0 0;
  font-size: var(--t-m);
}
.missing {
  display: grid;
  justify-items: center;
  gap: var(--s-16);
  text-align: center;
  padding: var(--s-32);
}
.kept {
  padding: var(--s-8) var(--s-16);
  margin: var(--s-8) 0 0;
}
.others {
  padding: 0 var(--s-24);
}
.foot {
  font-size: var(--t-m);
}
.foot .link {
  padding: 0;
}
@media (max-width: 1000px) {
  /* the answer, then the plates, then what is said of them */
  .side {
    display: contents;
  }
  .asks {
    order: -1;
  }
  .asks .big {
    font-size: var(--t-h1);
  }
}
</style>
