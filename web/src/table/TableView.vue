<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, call, sentenceOf, type Schemas } from '../api/client'
import { useChange } from '../api/change'
import { keep, refresh } from '../api/kept'
import PieceBadge from '../draw/PieceBadge.vue'
import Field from '../kit/Field.vue'
import { say } from '../kit/notice'
import NumberedPlate from './NumberedPlate.vue'
import TastingCard from './TastingCard.vue'

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
              table.missing ||
              (table.revealed
                ? table.question
                : 'Two plates, two numbers. Which is which stays hidden until the reveal.')
            }}
          </p>
        </div>
        <v-btn v-if="table.missing" class="solid" :to="`/coat/${table.cook_id}`">To Coat</v-btn>
        <v-btn v-else class="solid" @click="scoring = true">Taste and score</v-btn>
      </header>

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
            <p class="muted">
              Pass the phone round: each taster scores both plates alone, in the order the card says. Say first how many
              cards this trial takes: only those name a winner.
            </p>
            <Field v-model="planned" label="Cards" :error="refused" />
            <v-btn type="submit" :disabled="planned === String(table.planned_cards)">State it</v-btn>
          </form>
          <p v-else-if="!table.missing" class="muted">
            {{ table.cards.length }} of the {{ table.planned_cards }} this trial stated.
          </p>
          <p v-if="table.seen_by.length" class="muted">
            {{ table.seen_by.join(', ') }} {{ table.seen_by.length === 1 ? 'has' : 'have' }} seen the plating and
            {{ table.seen_by.length === 1 ? 'knows' : 'know' }} which is which.
          </p>
          <ul>
            <li v-for="card in table.cards" :key="card.id">
              <span>
                <b>{{ card.taster }}</b>
                <span class="muted">
                  tasted {{ card.served.join(', then ') }}{{ card.blind ? '' : ', not blind' }};
                  <template v-if="table.revealed">
                    prefers {{ card.prefers ? pieceOf.get(card.prefers)?.name.toLowerCase() : 'neither' }}
                  </template>
                  <template v-else>preference kept until the reveal</template>
                </span>
              </span>
              <v-btn class="quiet" :aria-label="`Take back ${card.taster}’s card`" @click="takeBack(card)"
                >Take back</v-btn
              >
            </li>
          </ul>
          <router-link v-if="table.revealed" class="link" :to="`/verdict/${table.trial_id}`"
            >See what the cards say</router-link
          >
          <v-btn v-else-if="table.cards.length" @click="asking = true">Reveal which is which</v-btn>
        </section>
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
.spread {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 400px;
  gap: 30px;
  align-items: center;
  min-height: 520px;
}
.plates {
  display: flex;
  justify-content: center;
  flex-wrap: wrap;
  gap: 30px 44px;
}
.cards {
  padding: 20px 24px;
}
.plan {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 8px;
}
.plan p {
  flex: 1 0 100%;
  margin: 4px 0;
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
  gap: 10px;
}
figcaption {
  font-size: 16px;
  min-height: 30px;
}
.told {
  display: flex;
  align-items: center;
  gap: 10px;
  font-family: var(--display);
  font-weight: 700;
  font-size: 22px;
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
  margin: 8px 0 16px;
}
li {
  display: flex;
  justify-content: space-between;
  gap: 10px;
  align-items: center;
  border-top: 1px solid var(--line);
  padding: 6px 0;
}
li b,
li .muted {
  display: block;
}
li .muted {
  font-size: 14px;
}
.ask {
  padding: 22px 24px;
}
.ways {
  display: flex;
  gap: 10px;
}
@media (max-width: 1000px) {
  .spread {
    grid-template-columns: minmax(0, 1fr);
    padding-top: 20px;
  }
  .plates {
    gap: 16px;
  }
}
</style>
