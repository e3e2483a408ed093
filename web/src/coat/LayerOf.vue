<script setup lang="ts">
import { computed } from 'vue'
import { grindName, useCatalogue } from '../api/catalogue'
import type { Schemas } from '../api/client'
import { ofTheBath } from './layers'
import Select from '../kit/Select.vue'
import { coatHere, layerHere } from './useCoat'
import { sure } from '../kit/sure'

/** What a layer is of: a blend of the book, or a plain ingredient like the one it has. */
const props = defineProps<{ at: number; mark?: Schemas['LayerMarkOut']; errors: Record<string, string> }>()
const coat = coatHere()
const layer = layerHere(() => props.at)
const { catalogue, grinds } = useCatalogue()
const of = computed({
  get: () => (layer.value.blend_id ? `blend|${layer.value.blend_id}` : `grind|${layer.value.grind}`),
  set: (chosen) => {
    const [what, key = ''] = chosen.split('|')
    layer.value.blend_id = what === 'blend' ? key : null
    layer.value.grind = what === 'grind' ? key : ''
    layer.value.revision = null
  },
})
const gone = computed(
  () => !!layer.value.blend_id && !coat.blends.value.some((blend) => blend.id === layer.value.blend_id),
)
const plain = computed(() =>
  layer.value.grind
    ? (catalogue.value?.grinds ?? []).filter(
        // a cure is never offered for a seasoning
        (g) =>
          g.family === grinds.value.get(sure(layer.value.grind))?.family && (!g.cure || g.key === layer.value.grind),
      )
    : [],
)
const choices = computed(() => {
  const { blend_id } = layer.value
  const there = [
    ...plain.value.map((grind) => ({ value: `grind|${grind.key}`, title: grindName(grind) })),
    ...coat.blends.value.map((blend) => ({ value: `blend|${blend.id}`, title: blend.name })),
  ]
  const deleted = { value: `blend|${blend_id}`, title: `${props.mark?.blend_name || 'a blend'} (deleted)`, gone: true }
  return gone.value ? [deleted, ...there] : there
})
</script>

<template>
  <div class="of">
    <p v-if="ofTheBath(layer)"><b>What is left of the bath</b>, boiled first</p>
    <Select v-else v-model="of" label="Of" :options="choices" />
    <p v-if="errors.blend || errors['blend.lines'] || errors.kind" class="says" role="alert">
      {{ errors.blend ?? errors['blend.lines'] ?? errors.kind }}
    </p>
    <p v-else-if="layer.revision" class="muted">
      Mixed as revision {{ layer.revision }}.
      <button v-if="mark?.changed_since" type="button" class="link" @click="layer.revision = null">
        The blend has changed since: use it as it is now
      </button>
    </p>
  </div>
</template>

<style scoped>
.of {
  display: grid;
  gap: var(--s-6);
}
p {
  margin: 0;
  font-size: var(--t-s);
}
.says {
  color: var(--stop);
}
</style>
