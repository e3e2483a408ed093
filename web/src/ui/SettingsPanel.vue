<script setup lang="ts">
import { computed } from 'vue'
import { sentenceOf } from '../api/client'
import Choice from './Choice.vue'
import { say } from './notice'
import { usePreferences, type Preferences } from './preferences'

const open = defineModel<boolean>({ required: true })
const { preferences, set } = usePreferences()

function bound<Key extends keyof Preferences>(key: Key) {
  return computed<Preferences[Key]>({
    get: () => preferences.value[key],
    set: (value) => set({ [key]: value }).catch((failure) => say(sentenceOf(failure))),
  })
}
const units = bound('units')
const temperature = bound('temperature')
const spoons = bound('spoon_set')
const theme = bound('theme')
const keys = computed({
  get: () => (preferences.value.single_keys ? 'on' : 'off'),
  set: (value) => set({ single_keys: value === 'on' }).catch((failure) => say(sentenceOf(failure))),
})
</script>

<template>
  <v-dialog v-model="open" max-width="440" aria-label="Units and theme">
    <section class="plate settings">
      <h2>Units and theme</h2>
      <Choice
        v-model="units"
        label="Weights, volumes, lengths"
        :options="[
          { value: 'metric', text: 'Metric' },
          { value: 'us', text: 'US' },
        ]"
      />
      <Choice
        v-model="temperature"
        label="Temperature"
        :options="[
          { value: 'C', text: '°C' },
          { value: 'F', text: '°F' },
        ]"
      />
      <Choice
        v-model="spoons"
        label="Spoons you own"
        :options="[
          { value: 'us', text: 'US' },
          { value: 'metric', text: '15 and 5 ml' },
          { value: 'australian', text: '20 and 5 ml' },
        ]"
      />
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
      <p>What is stored stays as it is; only how it is shown changes.</p>
      <v-btn class="solid" @click="open = false">Close</v-btn>
    </section>
  </v-dialog>
</template>

<style scoped>
.settings {
  padding: 22px 24px;
  display: grid;
  gap: 14px;
}
p {
  color: var(--muted);
  font-size: 14px;
  margin: 0;
}
</style>
