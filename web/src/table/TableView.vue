<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, call, sentenceOf, type Schemas } from '../api/client'
import { keep, refresh } from '../api/kept'
import PieceBadge from '../draw/PieceBadge.vue'
import CardsIn from './CardsIn.vue'
import NumberedPlate from './NumberedPlate.vue'
import TastingCard from './TastingCard.vue'
import TastingList from './TastingList.vue'

const props = defineProps<{ id?: string }>()
type Table = Schemas['TableOut']

const queries = useQueryClient()
const scoring = ref(false)
const key = ['table', props.id ?? 'in hand']
const { data: table, error } = useQuery({
  queryKey: key,
  queryFn: async (): Promise<Table | null> => {
    const trial = props.id ?? (await call(api.GET('/api/cooks'))).find((row) => row.in_hand)?.trial?.id
    return trial ? call(api.GET('/api/trials/{trial_id}', { params: { path: { trial_id: trial } } })) : null
  },
  gcTime: 0,
})

function show(now: Table) {
  void keep(queries, key, now)
  void refresh(queries, ['home'], ['cooks'])
}
function taken(now: Table) {
  scoring.value = false
  show(now)
}

const pieceOf = computed(() => new Map((table.value?.revealed ?? []).map((told) => [told.code, told])))
</script>

<template>
  <main v-if="table">
    <TastingCard v-if="scoring" :table="table" @taken="taken" @away="scoring = false" />
    <template v-else>
      <header class="station-head">
        <div>
          <h1>{{ table.cook }}</h1>
          <p class="muted">
            {{
              table.revealed ? table.question : 'Two plates, two numbers. Which is which stays hidden until the reveal.'
            }}
          </p>
        </div>
      </header>
      <section class="answer asks" aria-label="What is asked">
        <div>
          <p class="big">{{ table.missing || 'Which would you rather have again?' }}</p>
          <p v-if="!table.missing">
            {{ table.cards.length || 'None' }} of {{ table.planned_cards }} cards
            {{ table.cards.length > 1 ? 'are in.' : table.cards.length ? 'is in.' : 'is in yet.' }}
            {{ table.cards.length ? '' : 'Pass the phone round: each taster is alone with the plates.' }}
          </p>
        </div>
        <v-btn v-if="table.missing" class="on-dark" :to="`/coat/${table.cook_id}`">To Coat</v-btn>
        <v-btn v-else class="on-dark" @click="scoring = true">Taste and score</v-btn>
      </section>

      <div class="spread">
        <div class="plates">
          <figure v-for="code in table.codes" :key="code">
            <NumberedPlate :code="code" :size="236" />
            <figcaption v-if="pieceOf.get(code)" class="told">
              <PieceBadge :letter="pieceOf.get(code)!.letter" /> {{ pieceOf.get(code)!.name }}
            </figcaption>
            <figcaption v-else class="muted">piece hidden</figcaption>
          </figure>
        </div>
        <CardsIn v-if="!table.missing || table.cards.length" :table="table" @changed="show" />
        <TastingList to="table" :current="table.trial_id" class="others" />
      </div>
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
  </main>
</template>

<style scoped>
.asks {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: var(--s-20);
  padding: var(--s-20) var(--s-24);
}
.asks p {
  margin: var(--s-4) 0 0;
  color: var(--on-deep-soft);
}
.asks .big {
  font-size: var(--t-big);
  line-height: 1.1;
  margin: 0;
  color: #fff;
}
.spread {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 400px;
  gap: var(--s-24) var(--s-32);
  align-items: start;
  margin-top: var(--s-24);
}
.plates {
  display: flex;
  justify-content: center;
  align-items: center;
  flex-wrap: wrap;
  gap: var(--s-32) 44px;
  grid-row: 1 / span 2;
  padding-top: var(--s-32);
}
.others {
  padding: 0 var(--s-24);
}
figure {
  margin: 0;
  display: grid;
  justify-items: center;
  gap: var(--s-10);
}
figcaption {
  font-size: var(--t-l);
  min-height: 30px;
}
.told {
  display: flex;
  align-items: center;
  gap: var(--s-10);
  font-family: var(--display);
  font-weight: 700;
  font-size: var(--t-h2);
  animation: rise 0.7s ease-out;
}
@keyframes rise {
  from {
    opacity: 0;
    transform: translateY(-26px);
  }
}
@media (max-width: 1000px) {
  .spread {
    grid-template-columns: minmax(0, 1fr);
  }
  .asks {
    flex-wrap: wrap;
  }
  .asks .big {
    font-size: var(--t-h1);
  }
  .plates {
    gap: var(--s-16);
    grid-row: auto;
    padding: 0;
  }
}
</style>
