<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../api/client'
import { useCatalogue } from '../ui/catalogue'
import Choice from '../ui/Choice.vue'
import Field from '../ui/Field.vue'
import { usePreferences } from '../ui/preferences'
import Why from '../ui/Why.vue'
import BlendPick from './BlendPick.vue'
import DoseAnswer from './DoseAnswer.vue'
import HoldFields from './HoldFields.vue'

/** A dry coat: how heavy, on what surface, and what that takes. */
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
const weights = computed(() =>
  (catalogue.value?.coat_weights ?? []).map((weight) => ({
    value: String(weight.g_100cm2),
    text: `${weight.name} ${weight.g_100cm2}`,
  })),
)
const surfaces = computed(() =>
  (catalogue.value?.surfaces ?? []).map((surface) => ({ value: surface.name, text: surface.name })),
)
const coat = computed({ get: () => layer.value.coat ?? '', set: (text) => (layer.value.coat = text) })
const hold = computed({ get: () => layer.value.hold ?? '', set: (text) => (layer.value.hold = text) })
const celsius = computed({ get: () => layer.value.hold_c ?? 4, set: (value) => (layer.value.hold_c = value) })
const surface = computed({ get: () => layer.value.surface ?? '', set: (text) => (layer.value.surface = text) })
</script>

<template>
  <section class="layer" aria-label="Rub">
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
      :text="`${show.dose(reading.dose.value)} of rub`"
      of="Rub for this piece"
      batch="Size the batch"
      @batch="layer.blend_id && $emit('batch', layer.blend_id)"
    />
    <div class="weight">
      <Choice v-model="coat" label="Coat, g on 100 cm²" :options="weights" />
      <Field v-model="coat" label="or your own" :error="errors.coat" />
    </div>
    <Choice v-model="surface" label="Surface it goes on" :options="surfaces" :error="errors.surface" />
    <p v-if="reading?.binder" class="muted binder">
      Binder first: <Why :figure="reading.binder" of="Binder">{{ show.dose(reading.binder.value) }}</Why> of
      {{ surface }}.
    </p>
    <HoldFields v-model:hold="hold" v-model:celsius="celsius" :error="errors.hold" :place-error="errors.hold_c" />
  </section>
</template>

<style scoped>
.layer {
  display: grid;
  gap: 12px;
  border-top: 1px solid var(--line);
  padding-top: 14px;
}
.weight {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 92px;
  gap: 12px;
  align-items: start;
}
.binder {
  margin: 0;
  font-size: 14px;
}
@media (max-width: 720px) {
  .weight {
    grid-template-columns: 1fr;
  }
}
</style>
