<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { api, call, type Schemas } from '../api/client'
import { useQuestion } from '../api/question'
import Field from '../kit/Field.vue'
import { percent } from '../kit/units'
import GrindChoice from './GrindChoice.vue'
import { benchHere, type LineDoc } from './useBlend'
import { sure } from '../kit/sure'

/** What else can be done with a line: bounds for the aim, its place, what can stand in for it, unfolding a blend. */
const bench = benchHere()
const props = defineProps<{ at: number; name: string; errors: Record<string, string> }>()
const emit = defineEmits<{ close: [] }>()
const line = computed(() => sure(bench.doc.value?.lines[props.at]))

const choosing = ref<Schemas['SwapOut'] | null>(null)
const { answer: swaps, says: failed, ask, clear } = useQuestion<Schemas['SwapOut'][]>()
watch(
  () => [props.at, line.value?.grind] as const,
  ([at, grind]) => {
    clear()
    choosing.value = null
    const body = { ...bench.body(), line: at }
    if (grind) void ask((signal) => call(api.POST('/api/blends/swaps', { body, signal })))
  },
  { immediate: true },
)
const kinds: Record<string, string> = {
  named: 'The recipe names it too', grind: 'Another grind', crystal: 'Another crystal, at equal salt', form: 'Fresh and dried', 'stand-in': 'In its place',
  chilli: 'Another chilli, at equal heat', sugar: 'Another sugar, at equal sugar', nearest: 'The nearest of its kind',
} // prettier-ignore
const groups = computed(() => {
  const found = new Map<string, Schemas['SwapOut'][]>()
  for (const swap of swaps.value ?? []) found.set(swap.kind, [...(found.get(swap.kind) ?? []), swap])
  return [...found].map(([kind, rows]) => ({ kind, rows }))
})

function choose(swap: Schemas['SwapOut']) {
  if (swap.kind === 'grind' || swap.kind === 'crystal') choosing.value = swap
  else put(swap.line)
}
/** Put the swapped line in place, with the lock and the bounds of the one before it. */
function put(swapped: LineDoc) {
  const { lock, least, most } = line.value
  sure(bench.doc.value).lines[props.at] = { ...swapped, lock, least, most }
  emit('close')
}
async function hold(grind: string, as: 'spoons' | 'grams') {
  if (await bench.rework({ do: 'grind', line: props.at, grind, hold: as })) emit('close')
}
async function unfold() {
  if (await bench.rework({ do: 'unfold', line: props.at })) emit('close')
}
</script>

<template>
  <div class="tools">
    <Field
      v-model="line.least"
      label="At least, %"
      :error="errors[`lines.${at}.least`]"
      placeholder="0"
      class="bound"
    />
    <Field v-model="line.most" label="At most, %" :error="errors[`lines.${at}.most`]" placeholder="100" class="bound" />
    <Field
      v-model="line.error"
      label="By eye: off by, %"
      :error="errors[`lines.${at}.error`]"
      placeholder="0"
      class="bound"
    />
    <span class="place">
      <v-btn :disabled="at === 0" :aria-label="`Move ${name} up`" @click="bench.move(at, at - 1)">Up</v-btn>
      <v-btn
        :disabled="at === bench.doc.value!.lines.length - 1"
        :aria-label="`Move ${name} down`"
        @click="bench.move(at, at + 1)"
        >Down</v-btn
      >
    </span>
    <template v-if="line.blend">
      <router-link :to="`/blend/${line.blend}`" class="v-btn link">Open {{ name }}</router-link>
      <v-btn @click="unfold">Unfold its lines here</v-btn>
    </template>
  </div>
  <GrindChoice
    v-if="choosing"
    :at="at"
    :swap="choosing"
    @hold="(as) => hold(choosing!.line.grind, as)"
    @put="put(choosing!.line)"
    @leave="choosing = null"
  />
  <template v-else>
    <p v-if="failed" class="muted">{{ failed }}</p>
    <section v-for="group in groups" :key="group.kind">
      <h3>{{ kinds[group.kind] }}</h3>
      <ul>
        <li v-for="swap in group.rows" :key="swap.line.grind">
          <button type="button" @click="choose(swap)">
            <b>{{ swap.name }}</b>
            <span class="muted">{{ swap.line.parts }} by {{ swap.line.basis }}; {{ swap.reason }}</span>
            <span v-if="Math.abs(swap.salt_after - swap.salt_before) > 0.05" class="salt"
              >salt {{ percent(swap.salt_before) }} → {{ percent(swap.salt_after) }}</span
            >
          </button>
        </li>
      </ul>
    </section>
  </template>
</template>

<style scoped>
.tools {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: var(--s-10) var(--s-14);
}
.bound {
  width: 104px;
}
.bound :deep(input) {
  background: var(--plate);
}
.place {
  display: flex;
  gap: var(--s-6);
}
.link {
  display: inline-flex;
  align-items: center;
  padding: 0 var(--s-16);
}
h3 {
  font-size: var(--t-s);
  margin: var(--s-12) 0 var(--s-2);
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li button {
  width: 100%;
  text-align: left;
  padding: var(--s-6) var(--s-8);
  border-radius: 8px;
  display: flex;
  flex-wrap: wrap;
  gap: 0 var(--s-10);
  min-height: 36px;
  align-items: baseline;
}
li button:hover,
li button:focus-visible {
  background: var(--plate);
}
li span {
  font-size: var(--t-s);
}
.salt {
  color: var(--caution);
}
p {
  margin: var(--s-10) 0 0;
}
@media (max-width: 720px) {
  li button {
    min-height: 44px;
  }
}
</style>
