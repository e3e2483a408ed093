<script setup lang="ts">
import { useId } from 'vue'

/** The heading of a document, typed in place. */
const model = defineModel<string>({ required: true })
withDefaults(defineProps<{ label: string; error?: string; most?: number; size?: 'page' | 'part' }>(), {
  error: '',
  most: 80,
  size: 'page',
})
const id = useId()
</script>

<template>
  <div class="title">
    <label class="sr-only" :for="id">{{ label }}</label>
    <input
      :id="id"
      v-model="model"
      :class="[size, { long: model.length > 34 }]"
      :maxlength="most"
      autocomplete="off"
      :aria-invalid="!!error"
    />
    <p v-if="error" class="says" role="alert">{{ error }}</p>
  </div>
</template>

<style scoped>
.title {
  flex: 1 1 auto;
  min-width: 0;
}
input {
  font-family: var(--display) !important;
  font-weight: 700 !important;
  background: transparent !important;
  padding: 0 6px !important;
  margin-left: -6px;
  field-sizing: content;
  text-overflow: ellipsis;
  width: auto !important;
  max-width: 100%;
  min-width: 120px !important;
}
.page {
  font-size: 33px !important;
}
.part {
  font-size: 22px !important;
}
.page.long {
  font-size: 25px !important;
}
.says {
  color: var(--stop);
  font-size: 14px;
  margin: 0;
}
@media (max-width: 720px) {
  .page {
    font-size: 25px !important;
  }
  .page.long {
    font-size: 18px !important;
  }
}
</style>
