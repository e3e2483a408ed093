<script setup lang="ts">
import { computed } from 'vue'
import Choice from '../ui/Choice.vue'
import Field from '../ui/Field.vue'
import { usePreferences } from '../ui/preferences'

/** How long a layer is held, and where. */
const hold = defineModel<string>('hold', { required: true })
const celsius = defineModel<number>('celsius', { required: true })
const props = defineProps<{ hot?: boolean; error?: string; placeError?: string }>()
const { show } = usePreferences()
const PLACES = { cold: 4, bench: 21, simmer: 90 }
type Place = keyof typeof PLACES
const place = computed({
  get: (): Place => (celsius.value > 50 ? 'simmer' : celsius.value > 10 ? 'bench' : 'cold'),
  set: (where) => (celsius.value = PLACES[where]),
})
const places = computed(() => (props.hot ? (['simmer'] as const) : (['cold', 'bench'] as const)).map((value) => ({
  value, text: `${value}, ${show.value.temperature(PLACES[value])}`,
}))) // prettier-ignore
</script>

<template>
  <div class="hold">
    <Field v-model="hold" label="Hold" placeholder="2 h" :error="error" />
    <Choice v-model="place" label="Where" :error="placeError" :options="places" />
  </div>
</template>

<style scoped>
.hold {
  display: grid;
  grid-template-columns: 130px minmax(0, 1fr);
  gap: 12px;
  align-items: start;
}
</style>
