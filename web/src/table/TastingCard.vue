<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'
import { computed } from 'vue'
import { api, call } from '../api/client'
import { useChange } from '../api/change'
import Choice from '../kit/Choice.vue'
import Tick from '../kit/Tick.vue'
import { NONE, placesOf, tapped, toggledTie } from './card'
import FaceRow from './FaceRow.vue'
import NumberedPlate from './NumberedPlate.vue'
import PickPlate from './PickPlate.vue'
import PlateQuestions from './PlateQuestions.vue'
import { useCard } from './useCard'
import type { Table } from './useTable'

/** One taster's card, passed round on a phone or on their own: a question a step, or all on a page. */
const props = defineProps<{ table: Table; taster: string }>()
const emit = defineEmits<{ taken: [table: Table | null, name: string]; away: []; changed: [table: Table] }>()

const { card, at, step, steps, isLast, errors, others, begin, hand, taps, undo } = useCard(
  () => props.table,
  props.taster,
  (table, name) => emit('taken', table, name),
)
const paging = useLocalStorage<'steps' | 'page'>('ravska:card', 'steps')
const free = computed(() => {
  const done = new Set(props.table.cards.map((one) => one.taster))
  const seated = props.table.servings.filter((one) => one.state !== 'in').map((one) => one.taster)
  return [...new Set([...seated, ...props.table.tasters])].filter((name) => !done.has(name))
})
/** The steps in sight: one, or all after who it is. */
const shown = computed(() => (paging.value === 'page' && at.value > 0 ? steps.value.slice(1) : [step.value]))
const code = (name: string) => name.slice('plate '.length)
function pick(chosen: string) {
  errors.value = {}
  if (props.table.kind === 'ranking') card.order = tapped(card.order, chosen)
  else if (props.table.kind === 'triangle') card.odd = chosen
  else card.prefers = chosen
}
const leave = useChange('trial', async () => {
  const params = { path: { trial_id: props.table.trial_id } }
  emit('changed', await call(api.POST('/api/trials/{trial_id}/gone', { params, body: { taster: card.taster, gone: true } }))) // prettier-ignore
  emit('away')
})
const said = computed(() => Object.keys(card.scores).length + card.order.length || card.prefers || card.odd)
const decidesWith = computed(() => ({
  ranking: { places: placesOf(card.order, card.ties), order: card.order },
  triangle: { chosen: card.odd },
  preference: { chosen: card.prefers, none: 'No preference' },
  scores: {},
})[props.table.kind]) // prettier-ignore
</script>

<template>
  <form
    class="plate card"
    novalidate
    @submit.prevent="at ? (isLast || paging === 'page' ? hand(false) : at++) : begin()"
  >
    <header v-if="at">
      <span
        ><b>{{ card.taster }}</b> <span class="muted">tastes {{ card.served.join(', then ') }}</span></span
      >
      <span v-if="paging === 'steps'" class="dots" :aria-label="`Step ${at} of ${steps.length - 1}`" role="img">
        <i v-for="n in steps.length - 1" :key="n" :class="{ on: n === at, past: n < at }" />
      </span>
    </header>
    <div v-if="!at" class="who">
      <label for="taster">Who tastes?</label>
      <v-combobox
        id="taster"
        v-model="card.taster"
        :items="free"
        placeholder="A nickname"
        persistent-placeholder
        aria-label="Who tastes?"
      />
      <p v-if="errors.taster" class="says" role="alert">{{ errors.taster }}</p>
      <Tick v-model="card.short">a child’s card: three faces, a vote and no points</Tick>
      <Choice
        v-model="paging"
        label="The card comes"
        :options="[
          { value: 'steps', text: 'a question at a time' },
          { value: 'page', text: 'all on one page' },
        ]"
      />
    </div>
    <template v-for="name in shown" :key="name">
      <template v-if="name === 'decides'">
        <p class="muted first">
          Taste {{ card.served.join(', then ') }}, in this order, with a sip of {{ table.sip }} before each.
        </p>
        <PickPlate
          :codes="card.served"
          :asks="table.asks"
          v-bind="decidesWith"
          @pick="pick"
          @alike="card.ties = toggledTie(card.ties, $event)"
        />
        <p v-if="errors.decides" class="says" role="alert">{{ errors.decides }}</p>
      </template>
      <section v-else-if="name.startsWith('plate ')" class="sample" :aria-label="`Plate ${code(name)}`">
        <div class="head">
          <NumberedPlate :code="code(name)" :size="92" />
          <p>
            <span class="muted">a sip of {{ table.sip }} before it</span>
          </p>
        </div>
        <PlateQuestions v-model="card" :table="table" :code="code(name)" />
      </section>
      <section v-else-if="name === 'faces'" class="faces">
        <h2>How was it?</h2>
        <div v-for="one in card.served" :key="one" class="face">
          <NumberedPlate :code="one" :size="92" />
          <FaceRow
            :code="one"
            :model-value="card.scores[`${one}|face`]"
            @update:model-value="card.scores[`${one}|face`] = $event as number"
          />
        </div>
      </section>
      <PickPlate
        v-else-if="name === 'guess'"
        :codes="card.served"
        :asks="table.guess"
        :chosen="card.guess || NONE"
        none="I cannot tell"
        @pick="card.guess = $event === NONE ? '' : $event"
      />
    </template>
    <p v-for="sentence in others" :key="sentence" class="says" role="alert">{{ sentence }}</p>
    <div class="ways">
      <v-btn v-if="!at" class="solid" type="submit" :disabled="!card.taster?.trim()">Begin</v-btn>
      <v-btn v-else class="solid" type="submit">{{ isLast || paging === 'page' ? 'Hand the card in' : 'Next' }}</v-btn>
      <v-btn v-if="at" @click="at--">Back</v-btn>
      <v-btn v-if="at && taps.length" @click="undo">Undo</v-btn>
      <v-btn v-if="!at" @click="$emit('away')">Back to the plates</v-btn>
      <button v-if="at && said" type="button" class="link" @click="hand(true)">
        They had to go: hand in what is here
      </button>
      <button v-else-if="at" type="button" class="link" @click="leave">They left without tasting</button>
    </div>
  </form>
</template>

<style scoped>
.card {
  max-width: 760px;
  margin: 0 auto;
  padding: var(--s-24) var(--s-32);
  display: grid;
  gap: var(--s-20);
}
header {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: center;
  gap: var(--s-8);
}
.dots {
  display: flex;
  gap: var(--s-6);
}
.dots i {
  width: 10px;
  height: 10px;
  border-radius: 50%;
  border: 1.5px solid var(--rim);
}
.dots .past {
  background: var(--line-strong);
}
.dots .on {
  background: var(--cobalt);
}
.who {
  display: grid;
  gap: var(--s-10);
}
.who > label[for] {
  font-family: var(--display);
  font-weight: 700;
  font-size: var(--t-h2);
}
.first {
  margin: 0;
  text-align: center;
}
.sample {
  display: grid;
  gap: var(--s-16);
}
.sample + .sample {
  border-top: 1px solid var(--line);
  padding-top: var(--s-20);
}
.head {
  display: flex;
  align-items: center;
  gap: var(--s-16);
}
.head p {
  margin: 0;
}
.faces h2 {
  margin-bottom: var(--s-12);
  font-size: var(--t-h1);
  text-align: center;
}
.face {
  display: grid;
  grid-template-columns: 100px minmax(0, 1fr);
  gap: var(--s-16);
  align-items: center;
  padding: var(--s-12) 0;
  border-top: 1px solid var(--line);
}
.says {
  color: var(--stop);
  margin: 0;
  font-size: var(--t-m);
}
.ways {
  display: flex;
  gap: var(--s-10) var(--s-16);
  flex-wrap: wrap;
  align-items: center;
}
.ways .solid {
  min-height: 48px;
  min-width: 160px;
}
@media (max-width: 720px) {
  .card {
    padding: var(--s-20) var(--s-14);
  }
  .face {
    grid-template-columns: minmax(0, 1fr);
    justify-items: center;
  }
}
</style>
