<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '../api/client'
import { grindName, useCatalogue } from '../api/catalogue'

/** A layer to add: its kind, and what it is of: a blend of the book, or a plain salt, oil, mustard or liquid. */
const props = defineProps<{ blends: Schemas['BlendRow'][] }>()
const emit = defineEmits<{ add: [what: { kind: Kind; blend_id?: string; grind?: string }]; close: [] }>()
type Kind = Schemas['LayerDocument']['kind']
const { catalogue } = useCatalogue()
const kinds = computed(() => catalogue.value?.layer_kinds ?? [])
const kind = ref<Kind>('rub')
const found = computed(() => kinds.value.find((one) => one.key === kind.value))
const fitting = computed(() =>
  props.blends.filter((blend) => !blend.archived && blend.kind === found.value?.blend_kind),
)
const others = computed(() => props.blends.filter((blend) => !blend.archived && blend.kind !== found.value?.blend_kind))
const plain = computed(() =>
  (catalogue.value?.grinds ?? []).filter((grind) => found.value?.plain.includes(grind.family)),
)
const what = ref('')
function add() {
  const [of, key] = what.value.split('|')
  if (kind.value === 'drippings') emit('add', { kind: kind.value })
  else if (of === 'blend') emit('add', { kind: kind.value, blend_id: key })
  else if (of === 'grind') emit('add', { kind: kind.value, grind: key })
}
</script>

<template>
  <form class="new" @submit.prevent="add">
    <label>
      <span>Kind of layer</span>
      <select v-model="kind" @change="what = ''">
        <option v-for="one in kinds" :key="one.key" :value="one.key">
          {{ one.key }}: {{ one.says.toLowerCase() }}
        </option>
      </select>
    </label>
    <label v-if="kind !== 'drippings'">
      <span>Of</span>
      <select v-model="what">
        <option value="" disabled>choose</option>
        <optgroup v-if="fitting.length" :label="`Your blends, ${found?.blend_kind}`">
          <option v-for="blend in fitting" :key="blend.id" :value="`blend|${blend.id}`">{{ blend.name }}</option>
        </optgroup>
        <optgroup v-if="plain.length" label="Plain">
          <option v-for="grind in plain" :key="grind.key" :value="`grind|${grind.key}`">{{ grindName(grind) }}</option>
        </optgroup>
        <optgroup v-if="others.length" label="Your other blends">
          <option v-for="blend in others" :key="blend.id" :value="`blend|${blend.id}`">{{ blend.name }}</option>
        </optgroup>
      </select>
    </label>
    <div class="ways">
      <v-btn class="solid" type="submit" :disabled="kind !== 'drippings' && !what">Put it on</v-btn>
      <v-btn @click="$emit('close')">Not now</v-btn>
    </div>
  </form>
</template>

<style scoped>
.new {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 10px;
  background: var(--plate);
  border-radius: 14px;
  padding: 14px;
}
span {
  font-size: 13px;
  color: var(--muted);
  display: block;
  padding-bottom: 4px;
}
select {
  width: 100%;
}
.ways {
  display: flex;
  gap: 10px;
}
</style>
