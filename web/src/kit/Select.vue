<script setup lang="ts" generic="Value extends string | number">
import { computed, useId } from 'vue'

/** One of several that are listed when asked for; a group of them can stand under a heading. */
interface Option {
  value: Value
  title: string
  /** Stands above it where it is the first of its group. */
  group?: string
  gone?: boolean
}
const model = defineModel<Value | null | undefined>({ required: true })
const props = defineProps<{
  label: string
  options: Option[]
  error?: string
  hiddenLabel?: boolean
  placeholder?: string
}>()
const id = useId()
const items = computed(() =>
  props.options.flatMap((option, at) => {
    const { value, title, group, gone } = option
    const heads = group && group !== props.options[at - 1]?.group
    return [...(heads ? [{ type: 'subheader', title: group }] : []), { value, title, props: { disabled: gone } }]
  }),
)
</script>

<template>
  <div class="field" :class="{ wrong: error }">
    <label :for="id" :class="{ 'sr-only': hiddenLabel }">{{ label }}</label>
    <v-select
      :id="id"
      :model-value="model"
      :items="items"
      :placeholder="placeholder"
      :error="!!error"
      :aria-describedby="error ? `${id}-says` : undefined"
      @update:model-value="model = $event"
    />
    <p v-if="error" :id="`${id}-says`" class="says" role="alert">{{ error }}</p>
  </div>
</template>
