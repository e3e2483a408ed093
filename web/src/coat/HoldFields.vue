<script setup lang="ts">
import { computed } from 'vue'
import Choice from '../ui/Choice.vue'
import Field from '../ui/Field.vue'
import { usePreferences } from '../ui/preferences'

/** How long a layer is held, and where. */
const hold = defineModel<string>('hold', { required: true })
const celsius = defineModel<number>('celsius', { required: true })
defineProps<{ error?: string; placeError?: string }>()
const { show } = usePreferences()
const place = computed({
  get: () => (celsius.value > 10 ? 'bench' : 'cold'),
  set: (where) => (celsius.value = where === 'bench' ? 21 : 4),
})
</script>

<template>
  <div class="hold">
    <Field v-model="hold" label="Hold" placeholder="2 h" :error="error" />
    <Choice
      v-model="place"
      label="Where"
      :error="placeError"
      :options="[
        { value: 'cold', text: `cold, ${show.temperature(4)}` },
        { value: 'bench', text: `bench, ${show.temperature(21)}` },
      ]"
    />
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
