<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../api/client'
import { useCatalogue } from '../api/catalogue'
import Choice from '../kit/Choice.vue'
import Field from '../kit/Field.vue'
import { usePreferences } from '../app/preferences'
import { percent } from '../kit/units'
import OldMark from '../kit/OldMark.vue'
import Why from '../kit/Why.vue'
import LayerHold from './LayerHold.vue'
import TwoSides from './TwoSides.vue'
import { isOld } from './reading'
import { coatHere, layerHere } from './useCoat'
import WindowScale from './WindowScale.vue'
import { sure } from '../kit/sure'

/** A marinade: how long it may work, what goes in, what is set aside first, and what becomes of meat and bath after. */
const coat = coatHere()
const props = defineProps<{
  at: number
  reading: Schemas['LayerShown']
  name: string
  errors: Record<string, string>
}>()
const { catalogue } = useCatalogue()
const { show } = usePreferences()
const layer = layerHere(() => props.at)
const text = (key: 'reserve' | 'eaten') =>
  computed({ get: () => layer.value[key], set: (typed: string) => (layer.value[key] = typed) })
const reserve = text('reserve')
const eaten = text('eaten')
const after = computed({
  get: () => layer.value.after,
  set: (value: 'wiped' | 'rinsed' | 'as it is') => (layer.value.after = value),
})
const afters = computed(() =>
  (catalogue.value?.after_bath ?? []).map((one) => ({ value: one.key as 'wiped', text: one.key })),
)
const fate = computed({
  get: () => (layer.value.into_pot ? 'pot' : layer.value.eaten && layer.value.eaten !== '0' ? 'boiled' : 'thrown'),
  set: (value: string) => {
    layer.value.eaten = value === 'boiled' ? String((catalogue.value?.liquid_fates.gravy ?? 0) * 100) : ''
    // where no pot comes later, it is poured under the meat by itself
    if (value === 'pot' && !pot.value) return void coat.addLayer({ kind: 'cooking liquid' })
    layer.value.into_pot = value === 'pot'
  },
})
const pot = computed(() =>
  sure(coat.piece.value).layers.some((other, n) => n > props.at && other.kind === 'cooking liquid'),
)
const fates = computed(() => [
  { value: 'thrown', text: 'thrown away' },
  { value: 'boiled', text: 'boiled' },
  { value: 'pot', text: pot.value ? 'into the pot' : 'poured under it' },
])
function take(time: string) {
  coat.history.mark()
  layer.value.hold = time
}
</script>

<template>
  <TwoSides :title="`In the bath: ${name}`" class="bath" aria-label="In the bath">
    <template #about>
      {{ show.volume(reading.dose.value) }}, brings
      <Why :figure="reading.salt" of="Salt of the bath">{{ percent(reading.salt.value) }}</Why> salt
      <OldMark v-if="isOld(coat.errorsOf(coat.current.value), at)" />
    </template>
    <template #picture>
      <WindowScale
        v-if="reading.window"
        :window="reading.window"
        :standing="reading.standing"
        :too-long="reading.too_long"
        :hold-s="reading.hold_s"
        :reach="reading.reach ?? null"
        @take="take"
      />
    </template>
    <template #numbers>
      <LayerHold :at="at" label="In it for" :errors="errors" />
      <div class="fields">
        <Field
          v-model="reserve"
          label="Set aside first, for a sauce"
          placeholder="none"
          :error="errors.reserve"
          :hint="reading.reserve_g > 0 ? `${show.mass(reading.dose_g + reading.reserve_g)} to mix in all` : undefined"
        />
      </div>
      <Choice v-model="after" label="Out of the bath it is" :options="afters" />
      <div class="fields">
        <Choice v-model="fate" label="The bath then is" :options="fates" :error="errors.after" />
        <Field v-if="fate === 'boiled'" v-model="eaten" label="Of it is eaten, %" :error="errors.eaten" />
      </div>
      <p>{{ reading.says }}</p>
    </template>
  </TwoSides>
</template>
