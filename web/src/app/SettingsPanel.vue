<script setup lang="ts">
import { computed, reactive, ref, watch } from 'vue'
import Choice from '../kit/Choice.vue'
import Field from '../kit/Field.vue'
import { timeOf } from '../kit/when'
import { usePreferences, useSetPreferences } from './preferences'
import UnitChoices from './UnitChoices.vue'

const open = defineModel<boolean>({ required: true })
const { preferences } = usePreferences()
const set = useSetPreferences()

const theme = computed({
  get: () => preferences.value.theme,
  set: (value) => set({ theme: value }),
})
/** Read once it is typed to its end: half a height is none. */
const height = ref(preferences.value.height ?? '')
watch(
  () => preferences.value.height,
  (now) => {
    // what could not be read stays as typed
    if (!set.wrong.value.height) height.value = now ?? ''
  },
)
/** When the household sleeps: a time that cannot be read stays as typed, with what to do. */
const clocks = reactive({ sleeps: '', rises: '', wrong: '' })
watch(
  () => [preferences.value.sleeps, preferences.value.rises] as const,
  ([sleeps, rises]) => Object.assign(clocks, { sleeps: sleeps.slice(0, 5), rises: rises.slice(0, 5) }),
  { immediate: true },
)
function sleep(which: 'sleeps' | 'rises') {
  const read = timeOf(clocks[which])
  clocks.wrong = read.time ? '' : read.says
  if (read.time) void set({ [which]: `${read.time}:00` })
}
const zone = ref('')
watch(
  () => preferences.value.zone,
  (now) => (zone.value = now),
  { immediate: true },
)
const keys = computed({
  get: () => (preferences.value.single_keys ? 'on' : 'off'),
  set: (value) => set({ single_keys: value === 'on' }),
})
</script>

<template>
  <v-dialog v-model="open" max-width="440" aria-label="Units and theme">
    <section class="plate settings">
      <h2>Units and theme</h2>
      <UnitChoices />
      <Choice
        v-model="theme"
        label="Theme"
        :options="[
          { value: 'enamel', text: 'Enamel, light' },
          { value: 'iron', text: 'Iron, dark' },
        ]"
      />
      <Choice
        v-model="keys"
        label="Single-key shortcuts"
        :options="[
          { value: 'on', text: 'On' },
          { value: 'off', text: 'Off' },
        ]"
      />
      <Field
        v-model="height"
        label="Your kitchen above the sea"
        placeholder="650 m"
        hint="Water boils lower up a mountain."
        :error="set.wrong.value.height"
        @change="set({ height })"
      />
      <div class="night">
        <Field v-model="clocks.sleeps" label="You sleep from" placeholder="23:00" @change="sleep('sleeps')" />
        <Field v-model="clocks.rises" label="to" placeholder="7:00" :error="clocks.wrong" @change="sleep('rises')" />
      </div>
      <Field
        v-model="zone"
        label="Your clock"
        placeholder="Europe/Berlin"
        hint="The zone your days are planned in."
        :error="set.wrong.value.zone"
        @change="set({ zone })"
      />
      <p>What is stored stays as it is; only how it is shown changes.</p>
      <v-btn class="solid" @click="open = false">Close</v-btn>
    </section>
  </v-dialog>
</template>

<style scoped>
.settings {
  padding: var(--s-24) var(--s-24);
  display: grid;
  gap: var(--s-14);
}
.night {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: var(--s-10);
  align-items: start;
}
p {
  color: var(--muted);
  font-size: var(--t-s);
  margin: 0;
}
</style>
