<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../api/client'
import { usePreferences } from '../ui/preferences'
import BlendPick from './BlendPick.vue'
import DoseAnswer from './DoseAnswer.vue'
import HoldFields from './HoldFields.vue'
import MarinadeFields from './MarinadeFields.vue'
import RubFields from './RubFields.vue'
import WindowScale from './WindowScale.vue'

/** A rub or a marinade on a piece: which blend, how much of it, and how long it is held. */
const layer = defineModel<Schemas['LayerDocument']>({ required: true })
defineProps<{
  reading: Schemas['LayerReadingOut'] | null
  stored?: Schemas['LayerOut']
  blends: Schemas['BlendRow'][]
  errors: Record<string, string>
}>()
defineEmits<{ choose: [blendId: string]; batch: [blendId: string] }>()

const { show } = usePreferences()
const rub = computed(() => layer.value.kind === 'rub')
const hold = computed({ get: () => layer.value.hold ?? '', set: (text) => (layer.value.hold = text) })
const celsius = computed({ get: () => layer.value.hold_c ?? 4, set: (value) => (layer.value.hold_c = value) })
const amount = (value: number) =>
  rub.value ? `${show.value.dose(value)} of rub` : `${show.value.volume(value)} of marinade`
</script>

<template>
  <section class="layer" :aria-label="rub ? 'Rub' : 'Marinade'">
    <BlendPick
      :layer="layer"
      :stored="stored"
      :blends="blends"
      :error="errors.blend ?? errors['blend.lines']"
      @choose="$emit('choose', $event)"
      @current="layer.revision = null"
    />
    <DoseAnswer
      v-if="reading"
      :reading="reading"
      :text="amount(reading.dose.value)"
      :of="rub ? 'Rub for this piece' : 'Marinade for this piece'"
      batch="Size the batch"
      @batch="layer.blend_id && $emit('batch', layer.blend_id)"
    />
    <RubFields v-if="rub" v-model="layer" :binder="reading?.binder ?? null" :errors="errors" />
    <MarinadeFields v-else v-model="layer" :error="errors.vessel" />
    <HoldFields v-model:hold="hold" v-model:celsius="celsius" :error="errors.hold" :place-error="errors.hold_c" />
    <WindowScale
      v-if="reading?.window"
      :window="reading.window"
      :hold-min="reading.hold_s / 60"
      :reach="reading.reach"
    />
  </section>
</template>

<style scoped>
.layer {
  display: grid;
  gap: 12px;
  border-top: 1px solid var(--line);
  padding-top: 14px;
}
</style>
