<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '../api/client'
import { useCatalogue } from '../api/catalogue'
import Choice from '../kit/Choice.vue'
import Field from '../kit/Field.vue'
import { usePreferences } from '../app/preferences'
import Select from '../kit/Select.vue'
import { percent } from '../kit/units'
import Why from '../kit/Why.vue'
import BathWeighed from './BathWeighed.vue'
import DrippingsOf from './DrippingsOf.vue'
import LayerDose from './LayerDose.vue'
import LayerHold from './LayerHold.vue'
import LayerOf from './LayerOf.vue'
import LiquidAfter from './LiquidAfter.vue'
import { ofTheBath } from './layers'
import { coatHere, layerHere, type Layer } from './useCoat'
import { useOwnCoat } from './useOwnCoat'
import WeighBack from './WeighBack.vue'
import { sure } from '../kit/sure'

/** All that can be set on a layer: what it is of, its dose, its hold, and what of it stays. */
const coat = coatHere()
const props = defineProps<{
  at: number
  reading: Schemas['LayerShown'] | null
  mark?: Schemas['LayerMarkOut']
  errors: Record<string, string>
  target: number | null
  gives: boolean
}>()
defineEmits<{ remove: []; moved: [to: number] }>()
const layer = layerHere(() => props.at)
const { catalogue } = useCatalogue()
const { show } = usePreferences()
/** What it may become: all but what drips out, which is of nothing. */
const kinds = computed(() =>
  (catalogue.value?.layer_kinds ?? [])
    .filter((one) => one.key !== 'drippings')
    .map((one) => ({ value: one.key as Layer['kind'], title: one.key })),
)
const kind = computed(() => catalogue.value?.layer_kinds.find((found) => found.key === layer.value.kind))
const own = useOwnCoat(
  () => sure(coat.piece.value).cut,
  () => props.reading?.surface ?? 'moist',
  () => layer.value.kind,
)
const weights = computed(() => [
  ...(catalogue.value?.coat_weights ?? []).map((weight) => ({
    value: String(weight.g_100cm2),
    text: `${weight.name} ${weight.g_100cm2}`,
  })),
  ...(own.value?.times
    ? [{ value: own.value.figure.value.toFixed(1), text: `yours ${own.value.figure.value.toFixed(1)}` }]
    : []),
])
const dose = computed({
  get: () => layer.value.dose,
  set: (typed: string) => Object.assign(layer.value, { dose: typed, mixed_g: null }),
})
const stays = computed({ get: () => layer.value.stays ?? '', set: (typed: string) => (layer.value.stays = typed) })
const times = computed({
  get: () => String(layer.value.times ?? 1),
  set: (typed) => (layer.value.times = (/^\d+$/.test(typed) ? Number(typed) : typed) as number),
})
const vessel = computed({
  get: () => layer.value.vessel,
  set: (name) => {
    layer.value.vessel = name
    const found = catalogue.value?.vessels.find((one) => one.name === name)
    if (found) dose.value = String(found.ml_kg)
  },
})
const gone = computed(
  () => !!layer.value.blend_id && !coat.blends.value.some((blend) => blend.id === layer.value.blend_id),
)
const fate = computed(() => {
  const found = props.reading
  if (!found) return []
  const parts: [string, number][] = [
    ['in the meat', found.fate.meat ?? 0],
    ['at the surface', found.fate.surface ?? 0],
    ['on the plate beside it', found.fate.plate ?? 0],
    ...Object.entries(found.fate.lost ?? {}),
  ]
  return parts.filter(([, share]) => share > 0.004).map(([where, share]) => `${(share * 100).toFixed(0)} % ${where}`)
})
const weighing = ref(false)
const dosed = computed(() => layer.value.kind !== 'drippings')
const bath = computed(() => kind.value?.bath && !ofTheBath(layer.value))
/** Take a coat as it was weighed: so much went on, so much of it stays. */
function asWeighed(grams: string, share: string) {
  coat.history.mark()
  dose.value = grams
  if (share) stays.value = share
}
</script>

<template>
  <div class="fields">
    <div v-if="dosed" class="two">
      <LayerOf :at="at" :mark="mark" :errors="errors" />
      <Select
        :model-value="layer.kind"
        label="It goes on as"
        :options="kinds"
        @update:model-value="$event && coat.changeKind(at, $event, (to) => $emit('moved', to))"
      />
    </div>
    <p v-if="reading" class="dose">
      <b class="big">
        <Why :figure="reading.dose" :of="`Dose of the ${layer.kind}`">{{
          reading.dose.unit === 'ml' ? show.volume(reading.dose.value) : show.dose(reading.dose.value)
        }}</Why>
      </b>
      <Why :figure="reading.spoons.volume" of="Level spoons">{{ reading.spoons.text }}</Why>
    </p>
    <Choice v-if="layer.kind === 'rub'" v-model="dose" label="Coat, g on 100 cm²" :options="weights" />
    <Choice
      v-if="layer.kind === 'marinade'"
      v-model="vessel"
      label="Vessel"
      :options="(catalogue?.vessels ?? []).map((one) => ({ value: one.name, text: one.name }))"
    />
    <div class="two">
      <LayerDose
        v-if="!ofTheBath(layer)"
        :at="at"
        :reading="reading"
        :mark="mark"
        :error="errors.dose"
        :target="target"
      />
      <Field v-if="kind?.each_time" v-model="times" label="How often" :error="errors.times" />
      <Field
        v-else-if="layer.kind !== 'drippings' && kind?.stays !== null"
        v-model="stays"
        label="Stays, %"
        :placeholder="kind?.stays ? String(kind.stays * 100) : ''"
        :error="errors.stays"
      />
    </div>
    <LayerHold v-if="kind?.held" :at="at" :errors="errors" />
    <LiquidAfter
      v-if="layer.kind === 'cooking liquid' || layer.kind === 'wrap'"
      :at="at"
      :usual="kind?.stays ?? 0"
      :errors="errors"
    />
    <p v-if="reading && !ofTheBath(layer)" class="muted">
      Salt of it on the meat:
      <Why :figure="reading.salt" :of="`Salt of the ${layer.kind}`">{{ percent(reading.salt.value) }}</Why>{{
        reading.salt.value || fate.length ? `: ${fate.join(', ')}.` : '.'
      }}
    </p>
    <p v-if="reading?.says && layer.kind !== 'marinade'" class="muted">{{ reading.says }}</p>
    <p class="ways">
      <DrippingsOf v-if="layer.kind === 'drippings'" />
      <v-btn v-if="target !== null && gives && dosed" @click="coat.giveWay(at)"
        >Let it give way to {{ percent(target) }}</v-btn
      >
      <v-btn
        v-if="layer.kind === 'rub' || layer.kind === 'paste' || bath"
        :aria-expanded="weighing"
        @click="weighing = !weighing"
        >Weigh back</v-btn
      >
      <v-btn
        v-if="layer.kind === 'rub' || layer.kind === 'binder'"
        :aria-expanded="coat.binding.value"
        @click="coat.layBinders(!coat.binding.value)"
        >Binder or none</v-btn
      >
      <router-link v-if="layer.blend_id && !gone" :to="`/blend/${layer.blend_id}`" class="link"
        >Open the blend</router-link
      >
      <button type="button" class="link" @click="$emit('remove')">Take it off</button>
    </p>
    <BathWeighed v-if="weighing && bath" :at="at" :reading="reading" :errors="errors" />
    <WeighBack v-else-if="weighing && reading" :at="at" :surface="reading.surface" @use="asWeighed" />
  </div>
</template>

<style scoped>
.fields {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--s-12);
  padding: var(--s-4) 0 var(--s-20) 42px;
}
label span {
  font-size: var(--t-xs);
  color: var(--muted);
  display: block;
  padding-bottom: var(--s-4);
}
.two {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: var(--s-10);
  align-items: start;
}
p {
  margin: 0;
  font-size: var(--t-s);
}
.dose {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s-4) var(--s-14);
  align-items: baseline;
}
.dose .big {
  font-size: var(--t-h2);
}
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s-8) var(--s-14);
  align-items: center;
}
.says {
  color: var(--stop);
}
@media (max-width: 720px) {
  .fields {
    padding-left: 0;
  }
  .link {
    min-height: 44px;
    display: inline-flex;
    align-items: center;
  }
}
</style>
