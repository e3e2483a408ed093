<script setup lang="ts">
import { computed } from 'vue'
import { useCatalogue } from '../api/catalogue'
import Select from '../kit/Select.vue'
import { counted, upper, type Across, type Asked } from './useQuestion'

/** Another question: which two, and of which cuts, cooks and tasters. */
const open = defineModel<boolean>({ required: true })
const props = defineProps<{ across: Across; asked: Asked }>()
const emit = defineEmits<{ ask: [changed: Asked] }>()

const { cuts } = useCatalogue()
const KINDS = { way: 'Ways', blend: 'Blends', revision: 'Revisions of a blend' }
const pairs = computed(() =>
  (['way', 'blend', 'revision'] as const)
    .map((kind) => ({ kind, name: KINDS[kind], pairs: props.across.pairs.filter((pair) => pair.kind === kind) }))
    .filter((group) => group.pairs.length),
)
const isAsked = (pair: Across['pairs'][number]) =>
  pair.kind === props.across.kind && pair.first === props.across.first && pair.second === props.across.second
const every = { value: '', title: 'all' }
const listed = (values: string[]) => [every, ...values.map((value) => ({ value, title: value }))]
const named = (some: Across['choices']['traits']) => some.map(({ key, name }) => ({ value: key, title: name }))
const filters = computed(() => {
  const { choices } = props.across
  return [
    { key: 'cuts', label: 'Cut', options: [every, ...choices.cuts.map((value) => ({ value, title: cuts.value.get(value)?.name ?? value }))] },
    { key: 'trait', label: 'Kind of cut', options: [every, ...named(choices.traits)] },
    { key: 'season', label: 'Season', options: listed(choices.seasons) },
    { key: 'tasters', label: 'Taster', options: listed(choices.tasters) },
    { key: 'school', label: 'Held', options: [every, ...named(choices.schools)] },
    { key: 'cooker', label: 'Cooked on', options: listed(choices.cookers) },
  ] as const // prettier-ignore
})
function choose(pair: Across['pairs'][number]) {
  emit('ask', { kind: pair.kind, first: pair.first, second: pair.second })
  open.value = false
}
const none = () => emit('ask', { cuts: '', trait: '', season: '', tasters: '', school: '', cooker: '' })
</script>

<template>
  <v-dialog v-model="open" max-width="720" aria-label="Another question" scrollable>
    <div class="plate panel">
      <header>
        <h2>Another question</h2>
        <button type="button" class="link" @click="open = false">Close</button>
      </header>
      <div v-for="group in pairs" :key="group.kind">
        <h3>{{ group.name }}</h3>
        <ul>
          <li v-for="pair in group.pairs" :key="`${pair.first} ${pair.second}`">
            <button type="button" :aria-current="isAsked(pair) ? 'true' : undefined" @click="choose(pair)">
              <b>{{ upper(pair.names[0] ?? '') }} or {{ pair.names[1] }}?</b>
              <span class="muted">{{ counted(pair.cooks, 'cook') }}, {{ counted(pair.cards, 'card') }}</span>
            </button>
          </li>
        </ul>
      </div>
      <h3>Only some of it</h3>
      <div class="filters">
        <Select
          v-for="filter in filters"
          :key="filter.key"
          :model-value="asked[filter.key] ?? ''"
          :label="filter.label"
          :options="[...filter.options]"
          @update:model-value="emit('ask', { [filter.key]: $event ?? '' })"
        />
      </div>
      <p><button type="button" class="link" @click="none">Take all of it again</button></p>
    </div>
  </v-dialog>
</template>

<style scoped>
.panel {
  padding: var(--s-20) var(--s-24);
  overflow-y: auto;
}
header {
  display: flex;
  justify-content: space-between;
  align-items: center;
}
h3 {
  margin: var(--s-16) 0 var(--s-6);
  font-size: var(--t-l);
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li button {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: var(--s-2) var(--s-16);
  width: 100%;
  text-align: left;
  padding: var(--s-8) var(--s-12);
  border-radius: 10px;
  min-height: var(--tap);
  border: 1.5px solid transparent;
}
li button[aria-current] {
  border-color: var(--rim);
}
li button:hover {
  background: var(--tint);
}
.filters {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(190px, 1fr));
  gap: var(--s-12);
}
p {
  margin: var(--s-12) 0 0;
}
</style>
