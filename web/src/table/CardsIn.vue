<script setup lang="ts">
import { computed, ref } from 'vue'
import { useChange } from '../api/change'
import { api, call, sentenceOf, type Schemas } from '../api/client'
import Field from '../kit/Field.vue'
import { say } from '../kit/notice'
import RowMenu from '../kit/RowMenu.vue'
import TasterMark from './TasterMark.vue'

/** The cards of a trial: how many it takes, those that are in, and the reveal. */
type Table = Schemas['TableOut']
const props = defineProps<{ table: Table }>()
const emit = defineEmits<{ changed: [table: Table] }>()
const asking = ref(false)
const own = ref('')
const refused = ref('')
const planned = computed({
  get: () => own.value || String(props.table.planned_cards ?? ''),
  set: (typed) => (own.value = typed),
})
const plan = useChange(
  'trial',
  async () => {
    const path = { trial_id: props.table.trial_id }
    const cards = Number(planned.value)
    emit('changed', await call(api.PUT('/api/trials/{trial_id}/plan', { params: { path }, body: { cards } })))
    own.value = refused.value = ''
  },
  { refused: (failure) => (refused.value = sentenceOf(failure)) },
)

const takeBack = useChange('trial', async (card: Schemas['CardOut']) => {
  const path = { trial_id: props.table.trial_id, card_id: card.id }
  emit('changed', await call(api.POST('/api/trials/{trial_id}/cards/{card_id}/delete', { params: { path } })))
  say(`${card.taster}’s card is taken back.`, async () => {
    emit('changed', await call(api.POST('/api/trials/{trial_id}/cards/{card_id}/restore', { params: { path } })))
  })
})

const reveal = useChange('trial', async () => {
  asking.value = false
  const path = { trial_id: props.table.trial_id }
  emit('changed', await call(api.POST('/api/trials/{trial_id}/reveal', { params: { path } })))
})
const pieceOf = computed(() => new Map((props.table.revealed ?? []).map((told) => [told.code, told])))
</script>

<template>
  <section class="plate cards" aria-labelledby="cards">
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
  </section>
</template>

<style scoped>
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
</style>
