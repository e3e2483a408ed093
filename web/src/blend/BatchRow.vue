<script setup lang="ts">
import type { Schemas } from '../api/client'
import Field from '../ui/Field.vue'
import { usePreferences } from '../ui/preferences'
import Why from '../ui/Why.vue'

/** How much is mixed at once. */
const batch = defineModel<string>({ required: true })
defineProps<{ reading: Schemas['BlendReadingOut'] | null; error?: string }>()
const { show } = usePreferences()
</script>

<template>
  <div class="batch">
    <Field v-model="batch" label="Batch" :error="error" placeholder="150 g" class="size" />
    <p v-if="reading">
      <span class="muted">makes</span>
      <Why :figure="reading.batch" of="Batch"
        ><b>{{ show.mass(reading.batch.value) }}</b></Why
      >
      <span class="muted">or about</span>
      <Why :figure="reading.volume" of="Volume of the batch"
        ><b>{{ show.volume(reading.volume.value) }}</b></Why
      >
    </p>
  </div>
</template>

<style scoped>
.batch {
  display: flex;
  align-items: end;
  gap: 22px;
  border-top: 1px solid var(--line);
  padding-top: 12px;
  margin-top: 6px;
}
.size {
  width: 160px;
}
p {
  margin: 0 0 7px;
}
</style>
