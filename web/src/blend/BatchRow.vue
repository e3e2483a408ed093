<script setup lang="ts">
import type { Schemas } from '../api/client'
import Field from '../kit/Field.vue'
import { usePreferences } from '../app/preferences'
import Why from '../kit/Why.vue'

/** How much is mixed at once. */
const batch = defineModel<string>({ required: true })
defineProps<{ reading: Schemas['BlendReadingOut'] | null; error?: string }>()
const { show } = usePreferences()
</script>

<template>
  <div class="batch">
    <Field v-model="batch" label="Batch" :error="error" placeholder="150 g" class="size" />
    <p v-if="reading">
      <Why :figure="reading.batch" of="Batch"
        ><b>{{ show.mass(reading.batch.value) }}</b></Why
      >
      <br /><span class="muted">about </span>
      <Why :figure="reading.volume" of="Volume of the batch"
        ><b>{{ show.volume(reading.volume.value) }}</b></Why
      >
    </p>
  </div>
</template>

<style scoped>
.batch {
  display: flex;
  align-items: start;
  gap: var(--s-20);
  padding: 0 var(--s-6);
}
.size {
  width: 120px;
}
p {
  margin: var(--s-24) 0 0;
  line-height: 1.35;
}
</style>
