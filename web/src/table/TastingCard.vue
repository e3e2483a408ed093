<script setup lang="ts">
import { computed, reactive, ref, watch } from 'vue'
import { api, byField, call, sentenceOf, type Schemas } from '../api/client'
import { useChange } from '../api/change'
import Choice from '../kit/Choice.vue'
import * as unsent from '../edit/unsent'
import NumberedPlate from './NumberedPlate.vue'
import ScoreRow from './ScoreRow.vue'

/** One taster's card, passed round on a phone: plates in the order to taste them, then which is preferred. */
const props = defineProps<{ table: Schemas['TableOut'] }>()
const emit = defineEmits<{ taken: [table: Schemas['TableOut']]; away: [] }>()

// the order is fixed when the card is begun, whatever comes in meanwhile
const served = [...props.table.next_order]
const kept = `card:${props.table.trial_id}`
const blank = { taster: '', prefers: '', scores: {} as Record<string, number | undefined> }
const card = reactive({ ...blank, ...unsent.recall<typeof blank>(kept) })
watch(card, () => unsent.remember(kept, card))
void unsent.leftBehind<typeof blank>(kept).then((left) => {
  if (left && !card.taster && !Object.keys(card.scores).length) Object.assign(card, left)
})

const errors = ref<Record<string, string>>({})
const free = computed(() => {
  const done = new Set(props.table.cards.map((one) => one.taster))
  return props.table.tasters.filter((name) => !done.has(name))
})
const preference = computed(() => [
  ...served.map((code) => ({ value: code, text: code })),
  { value: 'none', text: 'no preference' },
])

const hand = useChange(
  'trial',
  async () => {
    if (!card.prefers) {
      errors.value = { prefers: 'Say which plate you would rather have again, or that you have no preference.' }
      return
    }
    const scores = Object.entries(card.scores).flatMap(([key, value]) => {
      const [code = '', scale = ''] = key.split('|')
      return value === undefined ? [] : [{ code, scale, value }]
    })
    const body = { taster: card.taster ?? '', served, scores, prefers: card.prefers === 'none' ? null : card.prefers }
    const path = { trial_id: props.table.trial_id }
    const table = await call(api.POST('/api/trials/{trial_id}/cards', { params: { path }, body }))
    unsent.forget(kept)
    emit('taken', table)
  },
  {
    refused: (failure) => {
      errors.value = byField(failure)
      if (!Object.keys(errors.value).length) errors.value = { all: sentenceOf(failure) }
    },
  },
)
const others = computed(() =>
  Object.entries(errors.value)
    .filter(([field]) => !['taster', 'prefers'].includes(field))
    .map(([, sentence]) => sentence),
)
</script>

<template>
  <form class="plate card" novalidate @submit.prevent="hand">
    <div class="who">
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
    </div>
    <ol class="order" aria-label="The order to taste in">
      <li v-for="(code, at) in served" :key="code">
        <NumberedPlate :code="code" :size="92" />
        <span
          ><b>{{ at ? 'Then taste' : 'First taste' }} {{ code }}</b
          ><br /><span class="muted">a sip of water before it</span></span
        >
      </li>
    </ol>
    <Choice
      v-model="card.prefers"
      class="decides"
      label="Which would you rather have again?"
      :options="preference"
      :error="errors.prefers"
    />
    <section v-for="code in served" :key="code" class="sample" :aria-label="`Plate ${code}`">
      <h2>{{ code }}</h2>
      <ScoreRow
        v-for="scale in table.scales"
        :key="scale.name"
        :scale="scale"
        :code="code"
        :model-value="card.scores[`${code}|${scale.name}`]"
        @update:model-value="card.scores[`${code}|${scale.name}`] = $event"
      />
    </section>
    <p v-for="sentence in others" :key="sentence" class="says" role="alert">{{ sentence }}</p>
    <div class="ways">
      <v-btn class="solid" type="submit">Hand the card in</v-btn>
      <v-btn @click="$emit('away')">Back to the plates</v-btn>
    </div>
  </form>
</template>

<style scoped>
.order {
  list-style: none;
  margin: 0;
  padding: 0;
  display: flex;
  flex-wrap: wrap;
  gap: var(--s-14) 40px;
}
.order li {
  display: flex;
  gap: var(--s-14);
  align-items: center;
}
.decides :deep(legend) {
  font-family: var(--display);
  font-weight: 700;
  font-size: var(--t-h1);
  color: var(--ink);
  padding-bottom: var(--s-8);
}
.decides :deep(label) {
  font-size: var(--t-h3);
  padding: var(--s-14) var(--s-16);
}
.card {
  max-width: 720px;
  margin: 0 auto;
  padding: var(--s-24) var(--s-32);
  display: grid;
  gap: var(--s-20);
}
.who {
  display: grid;
  gap: var(--s-4);
}
.who label {
  font-family: var(--display);
  font-weight: 700;
  font-size: var(--t-h2);
}
.sample {
  border-top: 1px solid var(--line);
  padding-top: var(--s-16);
  display: grid;
  gap: var(--s-12);
}
.head {
  display: flex;
  align-items: center;
  gap: var(--s-16);
}
.head p {
  margin: 0;
  font-size: var(--t-xl);
}
.says {
  color: var(--stop);
  margin: 0;
  font-size: var(--t-s);
}
.ways {
  display: flex;
  gap: var(--s-10);
  flex-wrap: wrap;
}
@media (max-width: 720px) {
  .card {
    padding: var(--s-20) var(--s-14);
  }
}
</style>
