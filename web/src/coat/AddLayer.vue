<script setup lang="ts">
import { computed, defineAsyncComponent, ref } from 'vue'
import type { Schemas } from '../api/client'
import { grindName, useCatalogue } from '../api/catalogue'
import Select from '../kit/Select.vue'

const RecipeLayer = defineAsyncComponent(() => import('./RecipeLayer.vue'))

/** A layer to add: its kind, and what it is of: a blend of the book, or a plain salt, oil, mustard or liquid. */
const props = defineProps<{ blends: Schemas['BlendRow'][]; bath: boolean }>()
const emit = defineEmits<{ add: [what: { kind?: Kind; blend_id?: string; grind?: string }]; close: [] }>()
type Kind = Schemas['LayerDocument']['kind']
/** Until a kind is chosen, a blend goes on as is usual for it. */
const USUAL = 'usual'
const { catalogue } = useCatalogue()
const kinds = computed(() => catalogue.value?.layer_kinds ?? [])
const kind = ref<Kind | typeof USUAL>(USUAL)
const found = computed(() => kinds.value.find((one) => one.key === kind.value))
const kindChoices = computed(() => [
  { value: USUAL as Kind | typeof USUAL, title: 'as is usual for what it is' },
  ...kinds.value.map((one) => ({ value: one.key as Kind, title: `${one.key}: ${one.says.toLowerCase()}` })),
])
/** What fits the kind first: one's own blends of it, then what does for it without anything mixed. */
const choices = computed(() => {
  const own = props.blends.filter((blend) => !blend.archived)
  const asChoice = (group: string) => (blend: Schemas['BlendRow']) => ({
    value: `blend|${blend.id}`,
    title: blend.name,
    group,
  })
  const blendKind = found.value?.blend_kind
  if (kind.value === USUAL) return own.map((blend) => asChoice(`Your blends, ${blend.kind}`)(blend))
  // a bath that is on it may be boiled and poured under, by itself
  const left = { value: 'bath|', title: 'What is left of the bath, boiled', group: 'From this piece' }
  return [
    ...(props.bath && kind.value === 'cooking liquid' ? [left] : []),
    ...own.filter((blend) => blend.kind === blendKind).map(asChoice(`Your blends, ${blendKind}`)),
    ...(catalogue.value?.grinds ?? [])
      .filter((grind) => found.value?.plain.includes(grind.family))
      .map((grind) => ({ value: `grind|${grind.key}`, title: grindName(grind), group: 'Plain' })),
    ...own.filter((blend) => blend.kind !== blendKind).map(asChoice('Your other blends')),
  ]
})
const what = ref('')
/** Whether it is made of a recipe as that is said. */
const said = ref(false)
function add() {
  const [of, key] = what.value.split('|')
  if (kind.value === USUAL) return key && emit('add', { blend_id: key })
  if (kind.value === 'drippings' || of === 'bath') emit('add', { kind: kind.value })
  else if (of === 'blend') emit('add', { kind: kind.value, blend_id: key })
  else if (of === 'grind') emit('add', { kind: kind.value, grind: key })
}
</script>

<template>
  <div v-if="said" class="new">
    <RecipeLayer @add="$emit('add', $event)">
      <v-btn @click="$emit('close')">Not now</v-btn>
    </RecipeLayer>
  </div>
  <form v-else class="new" @submit.prevent="add">
    <Select v-model="kind" label="Kind of layer" :options="kindChoices" @update:model-value="what = ''" />
    <Select v-if="kind !== 'drippings'" v-model="what" label="Of" :options="choices" placeholder="choose" />
    <div class="ways">
      <v-btn class="solid" type="submit" :disabled="kind !== 'drippings' && !what">Put it on</v-btn>
      <v-btn @click="said = true">From a recipe</v-btn>
      <v-btn @click="$emit('close')">Not now</v-btn>
    </div>
  </form>
</template>

<style scoped>
.new {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--s-10);
  background: var(--plate);
  border-radius: 14px;
  padding: var(--s-14);
}
span {
  font-size: var(--t-xs);
  color: var(--muted);
  display: block;
  padding-bottom: var(--s-4);
}
.ways {
  display: flex;
  gap: var(--s-10);
}
</style>
