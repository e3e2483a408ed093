<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, call, sentenceOf, type Schemas } from '../api/client'
import { useChange } from '../api/change'
import { keep, refresh } from '../api/kept'
import PieceBadge from '../draw/PieceBadge.vue'
import Field from '../kit/Field.vue'
import { say } from '../kit/notice'
import RowMenu from '../kit/RowMenu.vue'
import NumberedPlate from './NumberedPlate.vue'
import TasterMark from './TasterMark.vue'
import TastingCard from './TastingCard.vue'
import TastingList from './TastingList.vue'

const props = defineProps<{ id?: string }>()
type Table = Schemas['TableOut']

const queries = useQueryClient()
const scoring = ref(false)
const asking = ref(false)
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

const own = ref('')
const refused = ref('')
const planned = computed({
  get: () => own.value || String(table.value?.planned_cards ?? ''),
  set: (typed) => (own.value = typed),
})
const plan = useChange(
  'trial',
  async () => {
    const path = { trial_id: table.value!.trial_id }
    const cards = Number(planned.value)
    show(await call(api.PUT('/api/trials/{trial_id}/plan', { params: { path }, body: { cards } })))
    own.value = refused.value = ''
  },
  { refused: (failure) => (refused.value = sentenceOf(failure)) },
)

const takeBack = useChange('trial', async (card: Schemas['CardOut']) => {
  const path = { trial_id: table.value!.trial_id, card_id: card.id }
  show(await call(api.POST('/api/trials/{trial_id}/cards/{card_id}/delete', { params: { path } })))
  say(`${card.taster}’s card is taken back.`, async () => {
    show(await call(api.POST('/api/trials/{trial_id}/cards/{card_id}/restore', { params: { path } })))
  })
})

const reveal = useChange('trial', async () => {
  asking.value = false
  const path = { trial_id: table.value!.trial_id }
  show(await call(api.POST('/api/trials/{trial_id}/reveal', { params: { path } })))
})
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
        <section v-if="!table.missing || table.cards.length" class="plate cards" aria-labelledby="cards">
          <h2 id="cards">
            {{
              table.cards.length
                ? `${table.cards.length} ${table.cards.length === 1 ? 'card' : 'cards'} in`
                : 'No card in yet'
            }}
          </h2>
          <form v-if="!table.cards.length && !table.missing" class="plan" @submit.prevent="plan">
            <p class="muted">Say first how many cards this trial takes: only those name a winner.</p>
            <Field v-model="planned" label="Cards" :error="refused" />
            <v-btn type="submit" :disabled="planned === String(table.planned_cards)">State it</v-btn>
          </form>
          <p v-if="table.seen_by.length" class="muted">
            {{ table.seen_by.join(', ') }} {{ table.seen_by.length === 1 ? 'has' : 'have' }} seen the plating and
            {{ table.seen_by.length === 1 ? 'knows' : 'know' }} which is which.
          </p>
          <ul>
            <li v-for="card in table.cards" :key="card.id">
              <span>
                <TasterMark :name="card.taster" :blind="card.blind" />
                <span class="muted">
                  tasted {{ card.served.join(', then ') }};
                  <template v-if="table.revealed">
                    prefers {{ card.prefers ? pieceOf.get(card.prefers)?.name.toLowerCase() : 'neither' }}
                  </template>
                  <template v-else>preference kept until the reveal</template>
                </span>
              </span>
              <RowMenu
                :of="`${card.taster}’s card`"
                :doings="[{ text: 'Take back', label: `Take back ${card.taster}’s card`, does: () => takeBack(card) }]"
              />
            </li>
          </ul>
          <router-link v-if="table.revealed" class="link" :to="`/verdict/${table.trial_id}`"
            >See what the cards say</router-link
          >
          <v-btn v-else-if="table.cards.length" @click="asking = true">Reveal which is which</v-btn>
        </section>
        <TastingList to="table" :current="table.trial_id" class="others" />
      </div>

      <v-dialog v-model="asking" max-width="440" aria-label="Reveal">
        <section class="plate ask">
          <h2>Reveal which is which?</h2>
          <p>Cards can still be added afterwards, but they will be marked as not blind.</p>
          <div class="ways">
            <v-btn class="solid" @click="reveal">Reveal</v-btn>
            <v-btn @click="asking = false">Not yet</v-btn>
          </div>
        </section>
      </v-dialog>
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
.cards {
  padding: var(--s-20) var(--s-24);
}
.plan {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: var(--s-8);
}
.plan p {
  flex: 1 0 100%;
  margin: var(--s-4) 0;
}
.plan .field {
  width: 90px;
}
.link {
  font-weight: 600;
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
ul {
  list-style: none;
  padding: 0;
  margin: var(--s-8) 0 var(--s-16);
}
li {
  display: flex;
  justify-content: space-between;
  gap: var(--s-10);
  align-items: center;
  border-top: 1px solid var(--line);
  padding: var(--s-6) 0;
}
li .muted {
  display: block;
}
li .muted {
  font-size: var(--t-s);
}
.ask {
  padding: var(--s-24) var(--s-24);
}
.ways {
  display: flex;
  gap: var(--s-10);
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
