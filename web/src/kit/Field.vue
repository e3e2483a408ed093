<script setup lang="ts">
import { useId } from 'vue'

/** A typed amount: label, the text as typed, and a sentence below when it cannot be read. */
const model = defineModel<string>({ required: true })
defineProps<{
  label: string
  error?: string
  hint?: string
  placeholder?: string
  hiddenLabel?: boolean
  type?: string
}>()
const id = useId()
</script>

<template>
  <div class="field" :class="{ wrong: error }">
    <label :for="id" :class="{ 'sr-only': hiddenLabel }">{{ label }}</label>
    <input
      :id="id"
      v-model="model"
      :type="type ?? 'text'"
      autocomplete="off"
      spellcheck="false"
      :placeholder="placeholder"
      :aria-invalid="!!error"
      :aria-describedby="error || hint ? `${id}-says` : undefined"
    />
    <p v-if="error || hint" :id="`${id}-says`" class="says" :role="error ? 'alert' : undefined">{{ error || hint }}</p>
  </div>
</template>

<style scoped>
.field {
  display: grid;
  gap: 4px;
  min-width: 0;
}
label {
  font-size: 13px;
  color: var(--muted);
}
.says {
  font-size: 13px;
  line-height: 1.35;
  color: var(--muted);
  margin: 0;
}
.wrong .says {
  color: var(--stop);
}
.wrong input {
  border-color: var(--stop);
}
</style>
