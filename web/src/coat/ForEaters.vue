<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, call, sentenceOf } from '../api/client'
import Choice from '../ui/Choice.vue'
import Field from '../ui/Field.vue'
import { usePreferences } from '../ui/preferences'
import Why from '../ui/Why.vue'

/** From how many eat, and how much, to the raw weight of this cut. */
const eaters = defineModel<number | null>('eaters', { required: true })
const appetite = defineModel<'light' | 'usual' | 'hearty'>('appetite', { required: true })
const props = defineProps<{ cut: string; grade: 'lean' | 'ordinary' | 'marbled' | 'dry-aged' }>()
const emit = defineEmits<{ take: [mass: string] }>()
const { show } = usePreferences()

const text = computed({
  get: () => (eaters.value === null ? '' : String(eaters.value)),
  set: (typed) => (eaters.value = /^\d{1,3}$/.test(typed.trim()) ? Number(typed) : null),
})
const { data: raw, error } = useQuery({
  queryKey: ['raw weight', () => props.cut, () => props.grade, eaters, appetite],
  queryFn: () =>
    call(
      api.POST('/api/cooks/coat/raw-weight', {
        body: { cut: props.cut, grade: props.grade, eaters: eaters.value!, appetite: appetite.value },
      }),
    ),
  enabled: () => !!eaters.value,
})
const appetites = (['light', 'usual', 'hearty'] as const).map((value) => ({ value, text: value }))
</script>

<template>
  <div class="eaters">
    <Field v-model="text" label="How many eat" placeholder="8" :error="error ? sentenceOf(error) : undefined" />
    <Choice v-model="appetite" label="Appetite" :options="appetites" />
    <p v-if="raw && eaters" class="need">
      They need
      <b
        ><Why :figure="raw.figure" of="Raw weight for the eaters">{{ show.mass(raw.figure.value) }}</Why></b
      >
      raw.
      <v-btn class="solid" @click="emit('take', raw.mass)">Take {{ raw.mass }}</v-btn>
    </p>
  </div>
</template>

<style scoped>
.eaters {
  display: grid;
  grid-template-columns: 96px minmax(0, 1fr);
  gap: 10px;
  align-items: start;
}
.need {
  grid-column: 1 / -1;
  margin: 0;
  font-size: 15px;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px;
}
</style>
