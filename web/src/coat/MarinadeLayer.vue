<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../api/client'
import { useCatalogue } from '../ui/catalogue'
import Choice from '../ui/Choice.vue'
import { usePreferences } from '../ui/preferences'
import Why from '../ui/Why.vue'
import BlendPick from './BlendPick.vue'
import DoseAnswer from './DoseAnswer.vue'
import HoldFields from './HoldFields.vue'
import WindowScale from './WindowScale.vue'

/** A bath: in which vessel, how long, and how long this acid may work on this meat. */
const layer = defineModel<Schemas['LayerDocument']>({ required: true })
defineProps<{
  reading: Schemas['LayerReadingOut'] | null
  stored?: Schemas['LayerOut']
  blends: Schemas['BlendRow'][]
  errors: Record<string, string>
}>()
defineEmits<{ choose: [blendId: string]; batch: [blendId: string] }>()

const { catalogue } = useCatalogue()
const { show } = usePreferences()
const vessels = computed(() => (catalogue.value?.vessels ?? []).map((name) => ({ value: name, text: name })))
const vessel = computed({ get: () => layer.value.vessel ?? '', set: (text) => (layer.value.vessel = text) })
const hold = computed({ get: () => layer.value.hold ?? '', set: (text) => (layer.value.hold = text) })
const celsius = computed({ get: () => layer.value.hold_c ?? 4, set: (value) => (layer.value.hold_c = value) })
</script>

<template>
  <section class="layer" aria-label="Marinade">
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
      :text="`${show.volume(reading.dose.value)} of marinade`"
      of="Marinade for this piece"
      batch="Size the batch"
      @batch="layer.blend_id && $emit('batch', layer.blend_id)"
    />
    <Choice v-model="vessel" label="Vessel" :options="vessels" :error="errors.vessel" />
    <HoldFields v-model:hold="hold" v-model:celsius="celsius" :error="errors.hold" :place-error="errors.hold_c" />
    <WindowScale v-if="reading?.window" :window="reading.window" :hold-min="reading.hold_s / 60" />
    <p v-if="reading?.reach" class="muted reach">
      In that time salt reaches about
      <Why :figure="reading.reach" of="Reach of the salt">{{ reading.reach.value.toFixed(1) }} mm</Why>; the aromatics
      stay at the surface.
    </p>
  </section>
</template>

<style scoped>
.layer {
  display: grid;
  gap: 12px;
  border-top: 1px solid var(--line);
  padding-top: 14px;
}
.reach {
  margin: 0;
  font-size: 14px;
}
</style>
