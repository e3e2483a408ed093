<script setup lang="ts">
import { useId } from 'vue'

/** A typed amount or text: label, what is typed, and a sentence below when it cannot be read. */
const model = defineModel<string>({ required: true })
defineProps<{
  label: string
  error?: string
  hint?: string
  placeholder?: string
  hiddenLabel?: boolean
  type?: string
  maxlength?: number
  autofocus?: boolean
}>()
const id = useId()
</script>

<template>
  <div class="field" :class="{ wrong: error }">
    <label :for="id" :class="{ 'sr-only': hiddenLabel }">{{ label }}</label>
    <v-text-field
      :id="id"
      v-model="model"
      :type="type ?? 'text'"
      autocomplete="off"
      spellcheck="false"
      :maxlength="maxlength"
      :autofocus="autofocus"
      :placeholder="placeholder"
      :error="!!error"
      :aria-invalid="!!error"
      :aria-describedby="error || hint ? `${id}-says` : undefined"
    />
    <p v-if="error || hint" :id="`${id}-says`" class="says" :role="error ? 'alert' : undefined">{{ error || hint }}</p>
  </div>
</template>
