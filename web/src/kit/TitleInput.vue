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
  font-family: var(--display);
  font-weight: 700;
  background: transparent;
  padding: 0 var(--s-6);
  margin-left: -6px;
  field-sizing: content;
  text-overflow: ellipsis;
  width: auto;
  max-width: 100%;
  min-width: 120px;
}
.page {
  font-size: var(--t-big);
}
.part {
  font-size: var(--t-h2);
}
.page.long {
  font-size: var(--t-h1);
}
.says {
  color: var(--stop);
  font-size: var(--t-s);
  margin: 0;
}
@media (max-width: 720px) {
  .page {
    font-size: var(--t-h1);
  }
  .page.long {
    font-size: var(--t-xl);
  }
}
</style>
