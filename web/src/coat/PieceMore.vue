<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../api/client'
import { useCatalogue } from '../api/catalogue'
import Choice from '../kit/Choice.vue'
import Field from '../kit/Field.vue'
import { usePreferences } from '../app/preferences'
import HoldFields from './HoldFields.vue'
import { pieceHere } from './useCoat'
import Tick from '../kit/Tick.vue'
import { sure } from '../kit/sure'

/** What can be known of a piece besides: grade, what was trimmed, its measures, its thin end, and how it is cut up. */
const piece = pieceHere()
const props = defineProps<{ reading: Schemas['PieceShown'] | null; errors: Record<string, string> }>()
const { catalogue } = useCatalogue()
const { show } = usePreferences()

const says = (name: string) => props.errors[name]
function text(key: 'serving' | 'untrimmed' | 'length' | 'width' | 'thickness' | 'cut_size' | 'thin') {
  return computed({ get: () => piece.value[key] ?? '', set: (typed: string) => (piece.value[key] = typed) })
}
const untrimmed = text('untrimmed')
const serving = text('serving')
const length = text('length')
const width = text('width')
const thickness = text('thickness')
const size = text('cut_size')
const thin = text('thin')
type Stage = NonNullable<Schemas['PieceDocument']['stages']>[number]
/** What raw meat goes through beside its layers; all of it counts on the clocks of raw meat. */
const STAGES: { what: Stage['what']; says: string; usual: string; place: Stage['place'] }[] = [
  { what: 'thaw', says: 'thawed from frozen', usual: '24 h', place: 'fridge' },
  { what: 'temper', says: 'taken out some time before the fire', usual: '45 min', place: 'bench' },
]
const staged = (what: Stage['what']) => piece.value.stages?.find((stage) => stage.what === what)
function toggle(what: Stage['what']) {
  const others = (piece.value.stages ?? []).filter((stage) => stage.what !== what)
  const { usual, place } = sure(STAGES.find((stage) => stage.what === what))
  piece.value.stages = staged(what) ? others : [...others, { what, place, hold: usual, hold_at: '' }]
}
const saysOf = (what: Stage['what'], field: string) =>
  props.errors[`stages.${piece.value.stages?.findIndex((stage) => stage.what === what)}.${field}`]
type Grade = NonNullable<Schemas['PieceDocument']['grade']>
const grade = computed({
  get: () => piece.value.grade ?? 'ordinary',
  set: (value: Grade) => (piece.value.grade = value),
})
const grades = computed(() => (catalogue.value?.grades ?? []).map((value) => ({ value: value as Grade, text: value })))
type Surface = NonNullable<Schemas['PieceDocument']['surface']>
const surface = computed({
  get: () => piece.value.surface ?? 'moist',
  set: (value: Surface) => (piece.value.surface = value),
})
type Into = NonNullable<Schemas['PieceDocument']['cut_into']>
const into = computed({
  get: () => piece.value.cut_into ?? '',
  set: (value: Into) => {
    piece.value.cut_into = value
    if (value && !piece.value.cut_size) piece.value.cut_size = `${props.reading?.usual_edge_cm ?? 3.5} cm`
  },
})
const ways: { value: Into; text: string }[] = [
  { value: '', text: 'whole' },
  { value: 'cubes', text: 'cubes' },
  { value: 'strips', text: 'strips' },
  { value: 'steaks', text: 'steaks' },
]
</script>

<template>
  <div class="more">
    <Choice v-model="grade" label="Grade" :options="grades" />
    <Choice
      v-model="surface"
      label="Its surface"
      :options="[
        { value: 'moist', text: 'moist' },
        { value: 'dry', text: 'patted dry' },
      ]"
    />
    <Tick v-model="piece.pierced">needled, rolled or deeply scored, so no longer intact</Tick>
    <div v-for="stage in STAGES" :key="stage.what" class="stage">
      <Tick :model-value="!!staged(stage.what)" @update:model-value="toggle(stage.what)">{{ stage.says }}</Tick>
      <HoldFields
        v-if="staged(stage.what)"
        v-model:hold="staged(stage.what)!.hold"
        v-model:place="staged(stage.what)!.place as string"
        v-model:held-at="staged(stage.what)!.hold_at as string"
        label="How long"
        :placeholder="stage.usual"
        :errors="{
          hold: saysOf(stage.what, 'hold'),
          place: saysOf(stage.what, 'place'),
          heldAt: saysOf(stage.what, 'hold_at') ?? saysOf(stage.what, 'hold_c'),
        }"
      />
    </div>
    <Field
      v-model="untrimmed"
      label="Weight before trimming"
      placeholder="2.6 kg"
      :error="says('untrimmed')"
      :hint="reading && reading.trimmed_g > 0 ? `${show.mass(reading.trimmed_g)} came off` : undefined"
    />
    <Field v-model="serving" label="A serving of it, cooked" placeholder="by the appetite" :error="says('serving')" />
    <div class="three">
      <Field v-model="length" label="Length" placeholder="24 cm" :error="says('length')" />
      <Field v-model="width" label="Width" placeholder="17 cm" :error="says('width')" />
      <Field v-model="thickness" label="Thickness" placeholder="10 cm" :error="says('thickness')" />
    </div>
    <Field
      v-model="thin"
      label="Thin end, thickness"
      :placeholder="reading ? show.length(reading.thin_cm) : '4 cm'"
      :error="says('thin')"
    />
    <Choice v-model="into" label="Cut it into" :options="ways" :error="says('cut_into')" />
    <Field
      v-if="into"
      v-model="size"
      :label="into === 'steaks' ? 'How thick' : 'Edge'"
      placeholder="3.5 cm"
      :error="says('cut_size')"
    />
  </div>
</template>

<style scoped>
.more,
.stage,
.three {
  display: grid;
  gap: var(--s-12);
}
.three {
  grid-template-columns: repeat(3, minmax(0, 1fr));
  align-items: start;
  gap: var(--s-8);
}
</style>
