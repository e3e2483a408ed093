<script setup lang="ts">
import { useQuestion } from '../api/question'
import { computed, watch } from 'vue'
import { api, call, type Schemas } from '../api/client'
import Choice from '../kit/Choice.vue'
import Field from '../kit/Field.vue'
import { usePreferences } from '../app/preferences'
import Why from '../kit/Why.vue'
import { sure } from '../kit/sure'
import { coatHere } from './useCoat'

/** From how many eat, and how much, to the raw weight of this cut. */
const coat = coatHere()
const board = computed(() => sure(coat.doc.value))
const eaters = computed(() => board.value.eaters ?? null)
const appetite = computed({
  get: () => board.value.appetite ?? 'usual',
  set: (how) => (board.value.appetite = how),
})
const props = defineProps<{ cut: string; grade: 'lean' | 'ordinary' | 'marbled' | 'dry-aged' }>()
const emit = defineEmits<{ take: [mass: string, bought: string] }>()
const { show } = usePreferences()

const text = computed({
  get: () => (eaters.value === null ? '' : String(eaters.value)),
  set: (typed) => (board.value.eaters = /^\d{1,3}$/.test(typed.trim()) ? Number(typed) : null),
})
const { answer: raw, says: refused, ask, clear } = useQuestion<Schemas['RawWeightOut']>()
watch(
  () => [props.cut, props.grade, eaters.value, appetite.value] as const,
  ([cut, grade, eaters, appetite]) => {
    if (!eaters) return clear()
    const body = { cut, grade, eaters, appetite }
    void ask((signal) => call(api.POST('/api/cooks/coat/raw-weight', { body, signal })))
  },
  { immediate: true },
)
/** What becomes of what is trimmed off, in a word or two. */
const becomes: Record<string, string> = {
  'own piece': 'a piece of its own', pot: 'for the pot', render: 'to render', bin: 'thrown away',
} // prettier-ignore
const appetites = (['light', 'usual', 'hearty'] as const).map((value) => ({ value, text: value }))
</script>

<template>
  <div class="eaters">
    <Field v-model="text" label="How many eat" placeholder="8" :error="refused" />
    <Choice v-model="appetite" label="Appetite" :options="appetites" />
    <p v-if="raw && eaters" class="need">
      They need
      <b
        ><Why :figure="raw.figure" of="Raw weight for the eaters">{{ show.mass(raw.figure.value) }}</Why></b
      >
      raw on the board: buy
      <b
        ><Why :figure="raw.buy" of="Weight to buy">{{ show.mass(raw.buy.value) }}</Why></b
      >
      <v-btn class="solid" @click="emit('take', raw.mass, raw.trims.length || raw.times ? raw.buy_mass : '')"
        >Take {{ raw.mass }}</v-btn
      >
    </p>
    <div v-if="raw && eaters && (raw.trims.length || raw.times)" class="off">
      <p>
        <Why :figure="raw.trim" of="What comes off">{{ Math.round(raw.trim.value) }} %</Why> comes off{{
          raw.times ? `, from ${raw.times} of your own` : ''
        }}:
      </p>
      <ul>
        <li v-for="trim in raw.trims" :key="trim.what">
          {{ trim.what }}, {{ Math.round(trim.share) }} % <small>{{ becomes[trim.becomes] ?? trim.becomes }}</small>
        </li>
      </ul>
    </div>
  </div>
</template>

<style scoped>
.eaters {
  display: grid;
  grid-template-columns: 96px minmax(0, 1fr);
  gap: var(--s-10);
  align-items: start;
}
.off {
  grid-column: 1 / -1;
  font-size: var(--t-s);
  color: var(--muted);
}
.off p {
  margin: 0;
}
.off ul {
  margin: var(--s-2) 0 0;
  padding-left: var(--s-20);
}
.off small {
  font-size: var(--t-xs);
}
.need {
  grid-column: 1 / -1;
  margin: 0;
  font-size: var(--t-m);
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s-6);
}
</style>
