<script setup lang="ts">
import { computed, defineAsyncComponent, ref } from 'vue'
import Choice from '../kit/Choice.vue'
import Field from '../kit/Field.vue'
import Select from '../kit/Select.vue'
import Tick from '../kit/Tick.vue'
import { sure } from '../kit/sure'
import { heatHere, type Phase } from './useHeat'

const OwnCooker = defineAsyncComponent(() => import('../shelf/OwnCooker.vue'))

/** What is seldom said of a phase: its cooker, where it lies to the heat, the wider band, wood and trays. */
const props = defineProps<{ at: number }>()
const heat = heatHere()
const phase = computed(() => sure(heat.phases.value[props.at]))
const around = computed(() => heat.around.value.get(phase.value.surround))
const errors = computed(() => heat.errorsOf(props.at))
function text(key: 'band' | 'distance' | 'turned' | 'touching' | 'wood') {
  return computed({ get: () => phase.value[key] ?? '', set: (typed: string) => (phase.value[key] = typed) })
}
const band = text('band')
const distance = text('distance')
const turned = text('turned')
const touching = text('touching')
const wood = text('wood')
const cookers = computed(() => [
  { value: '', title: 'the usual one', group: '' },
  ...(heat.known.value?.cookers ?? [])
    .filter((one) => one.surrounds.includes(phase.value.surround))
    .map((one) => ({
      value: one.key,
      title: `${one.says}, ready when ${one.ready}`,
      group: one.own ? 'Your own' : 'By kind',
    })),
])
const cooker = computed({
  get: () => phase.value.cooker ?? '',
  set: (kind: string) => (phase.value.cooker = kind),
})
const near = computed({ get: () => phase.value.near ?? false, set: (on: boolean) => (phase.value.near = on) })
const touch = computed({
  get: () => phase.value.apart === false,
  set: (on: boolean) => (phase.value.apart = !on),
})
type Threaded = NonNullable<Phase['threaded']>[number]
const threads = computed(() => Object.entries(heat.known.value?.threads ?? {}) as [Threaded, string][])
const thread = (key: Threaded, on: boolean) => {
  const others = (phase.value.threaded ?? []).filter((one) => one !== key)
  phase.value.threaded = on ? [...others, key] : others
}
type Setting = NonNullable<Phase['setting']>
const setting = computed({
  get: () => phase.value.setting ?? 'middling',
  set: (value: Setting) => (phase.value.setting = value),
})
const settings = (['gentle', 'middling', 'fierce'] as const).map((value) => ({ value, text: value }))
type Tray = NonNullable<Phase['tray']>
const tray = computed({ get: () => phase.value.tray ?? '', set: (value: Tray) => (phase.value.tray = value) })
const trays: { value: Tray; text: string }[] = [
  { value: '', text: 'none' },
  { value: 'water', text: 'water tray' },
  { value: 'drip', text: 'drip tray' },
]
const making = ref(false)
const iron = computed(() => phase.value.surround === 'hot iron')
</script>

<template>
  <div class="more">
    <div class="cooker">
      <Select v-model="cooker" label="Cooker" :options="cookers" :error="errors.cooker" />
      <v-btn size="small" @click="making = true">One of your own</v-btn>
    </div>
    <OwnCooker v-model="making" @made="cooker = $event" />
    <Field v-model="band" label="A wider band that still does" placeholder="95 to 135 °C" :error="errors.band" />
    <template v-if="around?.at_heat">
      <Choice v-if="!iron" v-model="setting" label="How it burns" :options="settings" />
      <div class="two">
        <Field
          v-if="!iron"
          v-model="distance"
          label="From the heat"
          placeholder="12 cm"
          :error="errors.distance ?? errors.distance_cm"
        />
        <Field v-else v-model="touching" label="Of a face touches, %" placeholder="100" :error="errors.touching" />
        <Field v-model="turned" label="Turned every" placeholder="1 min" :error="errors.turned" />
      </div>
    </template>
    <Tick v-else v-model="near">near: on the hot side of the grate</Tick>
    <template v-if="phase.vessel === 'skewer'">
      <Tick v-model="touch">its pieces touch each other on the skewer</Tick>
      <fieldset class="threads">
        <legend>Threaded between them</legend>
        <Tick
          v-for="[key, says] in threads"
          :key="key"
          :model-value="phase.threaded?.includes(key) ?? false"
          @update:model-value="thread(key, $event)"
          >{{ says }}</Tick
        >
      </fieldset>
    </template>
    <Field v-model="wood" label="Wood" placeholder="alder" :error="errors.wood" />
    <Choice v-model="tray" label="Under it" :options="trays" />
  </div>
</template>

<style scoped>
.more {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--s-12);
}
.cooker {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: var(--s-8);
  align-items: end;
}
.threads {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(170px, 1fr));
  gap: 0 var(--s-16);
  padding: 0;
  margin: 0;
  border: 0;
}
.threads legend {
  padding: 0 0 var(--s-4);
  font-size: var(--t-s);
  color: var(--muted);
}
.two {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: var(--s-10);
  align-items: start;
}
</style>
