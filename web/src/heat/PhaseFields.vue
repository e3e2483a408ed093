<script setup lang="ts">
import { computed, ref } from 'vue'
import Choice from '../kit/Choice.vue'
import Field from '../kit/Field.vue'
import Select from '../kit/Select.vue'
import Tick from '../kit/Tick.vue'
import { usePreferences } from '../app/preferences'
import { sure } from '../kit/sure'
import PhaseMore from './PhaseMore.vue'
import { heatHere, type Phase } from './useHeat'

/** All that a phase is: how hot, in what, and whichever end of it is first. */
const props = defineProps<{ at: number }>()
const emit = defineEmits<{ gone: [] }>()
const heat = heatHere()
const { show } = usePreferences()
const phase = computed(() => sure(heat.phases.value[props.at]))
const around = computed(() => heat.around.value.get(phase.value.surround))
const errors = computed(() => heat.errorsOf(props.at))
function text(key: 'aimed' | 'lasts' | 'centre' | 'sears') {
  return computed({ get: () => phase.value[key] ?? '', set: (typed: string) => (phase.value[key] = typed) })
}
const aimed = text('aimed')
const lasts = text('lasts')
const centre = text('centre')
const sears = text('sears')
type Vessel = NonNullable<Phase['vessel']>
const vessel = computed({
  get: () => phase.value.vessel || (around.value?.vessels[0] ?? 'grate'),
  set: (value: Vessel) => (phase.value.vessel = value),
})
const vessels = computed(() =>
  (around.value?.vessels ?? []).map((value) => ({
    value: value as Vessel,
    text: heat.known.value?.vessels[value] ?? value,
  })),
)
/** How done it is in the words of each school, as the centre that stands for. */
const words = computed(() =>
  (heat.known.value?.words ?? []).map((one) => ({
    value: show.value.temperature(one.centre_c),
    title: `${one.word}: ${show.value.temperature(one.centre_c)}, ${one.school}`,
  })),
)
const word = computed({
  get: () => words.value.find((one) => one.value === centre.value)?.value ?? '',
  set: (value: string) => (phase.value.centre = value),
})
type Feel = NonNullable<Phase['feel']>
const feel = computed({ get: () => phase.value.feel ?? '', set: (value: Feel) => (phase.value.feel = value) })
type Colour = NonNullable<Phase['colour']>
const colour = computed({ get: () => phase.value.colour ?? '', set: (value: Colour) => (phase.value.colour = value) })
const feels: { value: Feel; text: string }[] = [
  { value: '', text: 'not by feel' },
  { value: 'giving', text: 'giving' },
  { value: 'like butter', text: 'like butter' },
]
const colours: { value: Colour; text: string }[] = [
  { value: '', text: 'any' },
  { value: 'golden', text: 'golden' },
  { value: 'brown', text: 'brown' },
  { value: 'dark', text: 'dark' },
]
const more = ref(false)
function remove() {
  heat.remove(props.at)
  emit('gone')
}
</script>

<template>
  <div class="fields">
    <Field v-if="!around?.plain" v-model="aimed" label="How hot" :placeholder="around?.usual" :error="errors.aimed" />
    <Choice v-if="vessels.length > 1" v-model="vessel" label="In what" :options="vessels" :error="errors.vessel" />
    <h4>It ends by whichever is first</h4>
    <div class="two">
      <Field v-model="lasts" label="After a time" placeholder="2 h 30" :error="errors.lasts" />
      <Field v-if="!around?.plain" v-model="centre" label="Centre" placeholder="57 °C" :error="errors.centre" />
    </div>
    <Select
      v-if="!around?.plain && words.length"
      v-model="word"
      label="Centre, in words"
      :options="words"
      placeholder="rare to well done, tender, pulled"
    />
    <template v-if="!around?.plain">
      <Choice v-model="feel" label="Feel under a probe" :options="feels" :error="errors.feel" />
      <Choice v-model="colour" label="Colour" :options="colours" :error="errors.colour" />
      <Field
        v-if="around?.at_heat"
        v-model="sears"
        label="Each face at the heat, one after another"
        placeholder="60 s, 60 s, 20 s"
        :error="errors.sears"
      />
      <Tick v-model="more">where it lies, band of heat, wood and tray</Tick>
      <PhaseMore v-if="more" :at="at" />
    </template>
    <div class="do">
      <v-btn size="small" :disabled="at === 0" @click="heat.move(at, at - 1)">Earlier</v-btn>
      <v-btn size="small" :disabled="at === heat.phases.value.length - 1" @click="heat.move(at, at + 1)">Later</v-btn>
      <v-btn size="small" @click="remove">Take it out</v-btn>
    </div>
  </div>
</template>

<style scoped>
.fields {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--s-12);
  padding: var(--s-4) 0 var(--s-16) 36px;
}
h4 {
  margin: 0;
  font-size: var(--t-s);
}
.two {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: var(--s-10);
  align-items: start;
}
.do {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s-8);
}
@media (max-width: 720px) {
  .fields {
    padding-left: 0;
  }
}
</style>
