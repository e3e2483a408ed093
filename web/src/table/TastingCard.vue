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
      const [code, scale] = key.split('|')
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
    <section v-for="(code, at) in served" :key="code" class="sample" :aria-label="`Plate ${code}`">
      <div class="head">
        <NumberedPlate :code="code" :size="92" />
        <p>
          <b>{{ at ? 'Then taste' : 'First taste' }} {{ code }}</b
          ><br /><span class="muted">a sip of water before it</span>
        </p>
      </div>
      <ScoreRow
        v-for="scale in table.scales"
        :key="scale.name"
        :scale="scale"
        :code="code"
        :model-value="card.scores[`${code}|${scale.name}`]"
        @update:model-value="card.scores[`${code}|${scale.name}`] = $event"
      />
    </section>
    <Choice
      v-model="card.prefers"
      label="Which would you rather have again?"
      :options="preference"
      :error="errors.prefers"
    />
    <p v-for="sentence in others" :key="sentence" class="says" role="alert">{{ sentence }}</p>
    <div class="ways">
      <v-btn class="solid" type="submit">Hand the card in</v-btn>
      <v-btn @click="$emit('away')">Back to the plates</v-btn>
    </div>
  </form>
</template>

<style scoped>
.card {
  max-width: 720px;
  margin: 0 auto;
  padding: 24px 28px;
  display: grid;
  gap: 20px;
}
.who {
  display: grid;
  gap: 4px;
}
.who label {
  font-family: var(--display);
  font-weight: 700;
  font-size: 22px;
}
.sample {
  border-top: 1px solid var(--line);
  padding-top: 16px;
  display: grid;
  gap: 12px;
}
.head {
  display: flex;
  align-items: center;
  gap: 16px;
}
.head p {
  margin: 0;
  font-size: 17px;
}
.says {
  color: var(--stop);
  margin: 0;
  font-size: 14px;
}
.ways {
  display: flex;
  gap: 10px;
  flex-wrap: wrap;
}
@media (max-width: 720px) {
  .card {
    padding: 18px 14px;
  }
}
</style>
