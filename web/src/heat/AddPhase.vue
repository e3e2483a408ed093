<script setup lang="ts">
import { computed } from 'vue'
import Select from '../kit/Select.vue'
import { heatHere, type Phase } from './useHeat'

/** One more phase at the end. */
const { known, add } = heatHere()
const choices = computed(() =>
  (known.value?.surrounds ?? []).map((one) => ({ value: one.key as string, title: one.says })),
)
const none = computed({ get: () => '', set: (key: string) => key && add(key as Phase['surround']) })
</script>

<template>
  <Select v-model="none" label="Add a phase" :options="choices" placeholder="where it goes next" class="add" />
</template>

<style scoped>
.add {
  width: 100%;
  max-width: 320px;
}
</style>
