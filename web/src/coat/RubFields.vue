<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../api/client'
import { useCatalogue } from '../ui/catalogue'
import Choice from '../ui/Choice.vue'
import Field from '../ui/Field.vue'
import { usePreferences } from '../ui/preferences'
import Why from '../ui/Why.vue'

/** What a coat needs to know besides its blend: how heavy it is, and what it lies on. */
const layer = defineModel<Schemas['LayerDocument']>({ required: true })
defineProps<{ binder: Schemas['Figure'] | null; errors: Record<string, string> }>()

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
const surface = computed({ get: () => layer.value.surface ?? '', set: (text) => (layer.value.surface = text) })
</script>

<template>
  <div class="rub">
    <div class="weight">
      <Choice v-model="coat" label="Coat, g on 100 cm²" :options="weights" />
      <Field v-model="coat" label="or your own" :error="errors.coat" />
    </div>
    <Choice v-model="surface" label="Surface it goes on" :options="surfaces" :error="errors.surface" />
    <p v-if="binder" class="muted">
      Binder first: <Why :figure="binder" of="Binder">{{ show.dose(binder.value) }}</Why> of {{ surface }}.
    </p>
  </div>
</template>

<style scoped>
.rub {
  display: grid;
  gap: 12px;
}
.weight {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 92px;
  gap: 12px;
  align-items: start;
}
p {
  margin: 0;
  font-size: 14px;
}
@media (max-width: 720px) {
  .weight {
    grid-template-columns: 1fr;
  }
}
</style>
