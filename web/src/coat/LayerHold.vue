<script setup lang="ts">
import { computed } from 'vue'
import { useCatalogue } from '../api/catalogue'
import HoldFields from './HoldFields.vue'
import { layerHere } from './useCoat'

/** How long a layer is held, where, and how warm it is there. */
const props = defineProps<{ at: number; label?: string; errors: Record<string, string> }>()
const layer = layerHere(() => props.at)
const { catalogue } = useCatalogue()
const hold = computed({ get: () => layer.value.hold ?? '', set: (typed: string) => (layer.value.hold = typed) })
const place = computed({
  get: () => layer.value.place ?? '',
  set: (where: string) => {
    layer.value.place = where as NonNullable<typeof layer.value.place>
    layer.value.hold_c = null
  },
})
const heldAt = computed({
  get: () => layer.value.hold_at ?? '',
  set: (typed: string) => {
    layer.value.hold_at = typed
    // nothing typed is what is usual at the place, not what was typed before
    if (!typed) layer.value.hold_c = null
  },
})
const usual = computed(() => catalogue.value?.places.find((one) => one.key === place.value)?.usual_c)
</script>

<template>
  <HoldFields
    v-model:hold="hold"
    v-model:place="place"
    v-model:held-at="heldAt"
    :label="label"
    :celsius="layer.hold_c ?? usual"
    :pot="layer.kind === 'cooking liquid'"
    :errors="{ hold: errors.hold, place: errors.place, heldAt: errors.hold_at }"
  />
</template>
