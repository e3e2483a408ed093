<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../api/client'
import { useCatalogue } from '../ui/catalogue'
import HoldFields from './HoldFields.vue'

/** How long a layer is held, where, and how warm it is there. */
const layer = defineModel<Schemas['LayerDocument']>({ required: true })
defineProps<{ label?: string; errors: Record<string, string> }>()
const { catalogue } = useCatalogue()
const text = (key: 'hold' | 'hold_at') =>
  computed({ get: () => layer.value[key] ?? '', set: (typed: string) => (layer.value[key] = typed) })
const hold = text('hold')
const heldAt = text('hold_at')
const place = computed({
  get: () => layer.value.place ?? '',
  set: (where: string) => {
    layer.value.place = where as NonNullable<typeof layer.value.place>
    layer.value.hold_c = catalogue.value?.places.find((one) => one.key === where)?.usual_c ?? 4
  },
})
</script>

<template>
  <HoldFields
    v-model:hold="hold"
    v-model:place="place"
    v-model:held-at="heldAt"
    :label="label"
    :celsius="layer.hold_c"
    :pot="layer.kind === 'cooking liquid'"
    :errors="{ hold: errors.hold, place: errors.place, heldAt: errors.hold_c }"
  />
</template>
