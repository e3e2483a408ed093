<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { api, byField, call, sentenceOf, within } from '../api/client'
import { sure } from '../kit/sure'
import SideForm from './SideForm.vue'
import type { SideTyped } from './sides'
import type { Day, DayChange } from './useDay'

/** What is cooked beside the meat: each a row with its times, opened to be changed. */
const props = defineProps<{ day: Day; save: (change: DayChange) => Promise<void> }>()
const { data: kinds } = useQuery({
  queryKey: ['cooker kinds'],
  queryFn: () => call(api.GET('/api/shelf/cooker-kinds')),
  staleTime: Infinity,
})
const { data: own } = useQuery({ queryKey: ['own cookers'], queryFn: () => call(api.GET('/api/shelf/own-cookers')) })
const cookers = computed(() => [
  { value: '', title: 'none' },
  ...(own.value ?? []).map((one) => ({ value: one.key, title: one.typed.name ?? one.key })),
  ...(kinds.value ?? []).map((one) => ({ value: one.kind, title: one.says })),
])
const kept = computed(() => props.day.pieces.flatMap((piece) => (piece.side ? [{ ...piece, side: piece.side }] : [])))
const open = ref<number | null>(null)
const draft = ref<SideTyped | null>(null)
const errors = ref<Record<string, string>>({})
const refused = ref('')
const blank = (): SideTyped => ({
  name: '', minutes: '', hands: '', waits: '', cooker: '', aimed: '', tended: false,
}) // prettier-ignore
watch(
  () => props.day.id,
  () => close(),
)
function show(at: number) {
  open.value = at
  const was = kept.value[at]?.side
  draft.value = was ? { ...blank(), ...was } : blank()
  errors.value = {}
}
function close() {
  open.value = null
  draft.value = null
  refused.value = ''
}
async function send(sides: SideTyped[]) {
  try {
    await props.save({ sides })
    close()
  } catch (failure) {
    errors.value = within(byField(failure), `sides.${open.value ?? 0}.`)
    refused.value = Object.keys(errors.value).length ? '' : sentenceOf(failure)
  }
}
const all = () => kept.value.map((one) => ({ ...blank(), ...one.side }))
function keep() {
  const sides = all()
  sides[sure(open.value)] = sure(draft.value)
  void send(sides)
}
const remove = (at: number) => send(all().filter((_, nth) => nth !== at))
const about = (side: SideTyped) =>
  [side.hands && `${side.hands} of work`, side.minutes && `${side.minutes} on the fire`, side.aimed, side.waits && `can wait ${side.waits}`]
    .filter(Boolean)
    .join(', ') // prettier-ignore
</script>

<template>
  <section class="plate sides" aria-label="Sides">
    <h2>Sides</h2>
    <ul v-if="kept.length">
      <li v-for="(one, at) in kept" :key="one.letter">
        <button type="button" class="link" :aria-expanded="open === at" @click="open === at ? close() : show(at)">
          {{ one.name }}
        </button>
        <span class="muted">{{ about({ ...blank(), ...one.side }) }}</span>
        <p v-if="one.problem" role="status">{{ one.problem }}</p>
      </li>
    </ul>
    <p v-else-if="open === null" class="muted">
      Bread, beans, a salad: what wants the same fire and the same hands is planned with the meat.
    </p>
    <SideForm v-if="draft" v-model="draft" :cookers="cookers" :errors="errors">
      <p v-if="refused" role="alert">{{ refused }}</p>
      <v-btn class="solid" @click="keep">Keep it</v-btn>
      <v-btn class="quiet" @click="close">Leave it</v-btn>
      <v-btn v-if="kept[open ?? -1]" class="quiet" @click="remove(sure(open))">Take it off</v-btn>
    </SideForm>
    <v-btn v-else class="quiet" @click="show(kept.length)">Add a side</v-btn>
  </section>
</template>

<style scoped>
.sides {
  padding: var(--s-16) var(--s-20);
}
ul {
  list-style: none;
  padding: 0;
  margin: var(--s-6) 0 var(--s-8);
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: 0 var(--s-12);
  align-items: baseline;
  padding: var(--s-6) 0;
  border-top: 1px solid var(--line);
  font-size: var(--t-s);
}
p {
  font-size: var(--t-s);
}
</style>
