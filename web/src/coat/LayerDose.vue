<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../api/client'
import { useCatalogue } from '../api/catalogue'
import { usePreferences } from '../app/preferences'
import Field from '../kit/Field.vue'
import Offers from '../kit/Offers.vue'
import { percent } from '../kit/units'
import { layerHere } from './useCoat'

/** How much goes on: on the dial, or as the cook has it; what that comes to, and what is left. */
const props = defineProps<{
  at: number
  reading: Schemas['LayerShown'] | null
  mark?: Schemas['LayerMarkOut']
  error?: string
  target: number | null
}>()
const layer = layerHere(() => props.at)
const { catalogue } = useCatalogue()
const { show } = usePreferences()
const kind = computed(() => catalogue.value?.layer_kinds.find((found) => found.key === layer.value.kind))
const dose = computed({
  get: () => layer.value.dose,
  set: (typed: string) => {
    layer.value.dose = typed
    // said anew, it is not what was mixed any more
    layer.value.mixed_g = null
  },
})
const dosed = computed(() => layer.value.kind !== 'drippings')
const hint = computed(() => {
  const found = props.reading
  if (!dose.value && props.target !== null && dosed.value) return `takes the rest to ${percent(props.target)}`
  if (!found || !kind.value || !dosed.value || props.error) return undefined
  const parts = []
  if (props.mark?.said) parts.push(`is ${show.value.setting(found.dose_setting, kind.value.unit)}`)
  if (found.coat && dose.value) parts.push(`a ${found.coat} coat`)
  if (found.sticks_g < found.dose_g * 0.995) parts.push(`${show.value.dose(found.sticks_g)} of it sticks`)
  return parts.join(', ') || undefined
})
/** What of it goes on each of several pieces that were weighed one by one. */
const onEach = computed(() => (props.reading?.each_g ?? []).map((grams) => show.value.dose(grams)).join(', '))
const left = computed(() => {
  const grams = props.mark?.left_g
  const batch = props.reading?.batch_g
  if (grams === undefined || grams === null || !batch) return ''
  if (grams < -0.005 * batch)
    return `Its batch of ${show.value.mass(batch)} is ${show.value.mass(-grams)} short of all the pieces.`
  if (grams < 0.005 * batch) return `That is all of its batch of ${show.value.mass(batch)}.`
  return `${show.value.mass(grams)} of its batch of ${show.value.mass(batch)} are left.`
})
const offers = computed(() => {
  if (!props.mark?.blend_name || !dosed.value) return []
  const jar = (props.mark.jars_g ?? 0) > 0
  return [
    { key: 'all of this batch', text: 'all of this batch' },
    { key: 'half of it', text: 'half of it' },
    ...(jar
      ? [{ key: 'the rest of the jar', text: `the rest of the jar, ${show.value.mass(props.mark.jars_g ?? 0)}` }]
      : []),
  ].filter((one) => one.key !== dose.value)
})
</script>

<template>
  <div class="how-much">
    <Field
      v-model="dose"
      :label="`Dose, ${kind?.unit ?? ''}${dosed ? ', or 30 g, 3 tbsp' : ''}`"
      :placeholder="dosed && !kind?.bath ? 'the rest' : ''"
      :error="error"
      :hint="hint"
      :maxlength="40"
    />
    <p v-if="onEach" class="muted">On each: {{ onEach }}.</p>
    <p v-if="left" class="muted">{{ left }}</p>
    <Offers :offers="offers" @take="dose = $event" />
  </div>
</template>

<style scoped>
.how-much {
  display: grid;
  gap: var(--s-6);
}
p {
  margin: 0;
  font-size: var(--t-xs);
}
@media (max-width: 720px) {
  .how-much {
    grid-column: 1 / -1;
  }
}
</style>
