<script setup lang="ts">
import { computed } from 'vue'
import { useCatalogue } from '../api/catalogue'
import Choice from '../kit/Choice.vue'
import Field from '../kit/Field.vue'
import Tick from '../kit/Tick.vue'
import { coatHere, layerHere } from './useCoat'
import { sure } from '../kit/sure'

/** What becomes of a cooking liquid: drained, eaten, or poured into the same pot as the next. */
const props = defineProps<{ at: number; usual: number; errors: Record<string, string> }>()
const coat = coatHere()
const layer = layerHere(() => props.at)
const { catalogue } = useCatalogue()
const fates = computed(() =>
  Object.entries(catalogue.value?.liquid_fates ?? {}).map(([name, share]) => ({
    value: String(share * 100),
    text: name === 'drained' ? 'left in the pot' : name,
  })),
)
const eaten = computed({ get: () => layer.value.eaten ?? '', set: (typed: string) => (layer.value.eaten = typed) })
const pot = computed(() => layer.value.kind === 'cooking liquid')
const goesOn = computed(() => !!layer.value.into_pot)
/** Whether another liquid comes after it, whose pot it may go into. */
const next = computed(() =>
  sure(coat.piece.value).layers.some((other, n) => n > props.at && other.kind === 'cooking liquid'),
)
const joined = computed({ get: () => goesOn.value, set: (on) => (layer.value.into_pot = on) })
</script>

<template>
  <Tick v-if="pot && (next || goesOn)" v-model="joined">goes into the same pot as the next liquid</Tick>
  <p v-if="goesOn && errors.after" class="says" role="alert">{{ errors.after }}</p>
  <template v-if="!goesOn">
    <Choice v-if="pot" v-model="eaten" label="The liquid afterwards is" :options="fates" :error="errors.eaten" />
    <Field
      v-model="eaten"
      label="Of the liquid is eaten, %"
      :placeholder="pot ? '0' : String(usual * 100)"
      :error="pot ? undefined : errors.eaten"
    />
  </template>
</template>

<style scoped>
.says {
  margin: 0;
  color: var(--stop);
  font-size: var(--t-xs);
}
</style>
