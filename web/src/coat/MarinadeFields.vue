<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../api/client'
import { useCatalogue } from '../ui/catalogue'
import Choice from '../ui/Choice.vue'

/** What a bath needs to know besides its blend: the vessel. */
const layer = defineModel<Schemas['LayerDocument']>({ required: true })
defineProps<{ error?: string }>()
const { catalogue } = useCatalogue()
const vessels = computed(() => (catalogue.value?.vessels ?? []).map((name) => ({ value: name, text: name })))
const vessel = computed({ get: () => layer.value.vessel ?? '', set: (text) => (layer.value.vessel = text) })
</script>

<template>
  <Choice v-model="vessel" label="Vessel" :options="vessels" :error="error" />
</template>
