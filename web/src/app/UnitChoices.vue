<script setup lang="ts">
import { computed } from 'vue'
import { useCatalogue } from '../api/catalogue'
import Choice from '../kit/Choice.vue'
import { say } from '../kit/notice'
import { usePreferences, useSetPreferences, type Preferences } from './preferences'
import Tick from '../kit/Tick.vue'

/** What the household measures with: units, temperatures, and the spoons in its drawer. */
const { preferences } = usePreferences()
const set = useSetPreferences()

function bound<Key extends Exclude<keyof Preferences, 'spoons_lacking'>>(key: Key) {
  return computed<Preferences[Key]>({
    get: () => preferences.value[key],
    set: (value) => set({ [key]: value }),
  })
}
const units = bound('units')
const temperature = bound('temperature')
const spoons = bound('spoon_set')
const { catalogue } = useCatalogue()
const owned = computed(() => catalogue.value?.spoon_sets.find((x) => x.key === spoons.value)?.spoons ?? [])
const lacking = computed(() => preferences.value.spoons_lacking.filter((name) => owned.value.includes(name)))
function own(name: string) {
  const left = lacking.value.includes(name) ? lacking.value.filter((x) => x !== name) : [...lacking.value, name]
  if (left.length === owned.value.length) return say('Some spoon must be in the drawer; leave at least one ticked.')
  set({ spoons_lacking: left })
}
</script>

<template>
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
  <details class="drawer">
    <summary>In the drawer: {{ owned.length - lacking.length }} of {{ owned.length }} measures</summary>
    <Tick v-for="name in owned" :key="name" :model-value="!lacking.includes(name)" @update:model-value="own(name)">{{
      name
    }}</Tick>
  </details>
</template>

<style scoped>
.drawer summary {
  cursor: pointer;
  min-height: 32px;
  font-size: var(--t-m);
}
.drawer label {
  display: inline-flex;
  align-items: center;
  gap: var(--s-6);
  margin-right: var(--s-16);
  min-height: 36px;
}
</style>
