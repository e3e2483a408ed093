<script setup lang="ts" generic="Value extends string">
import { useId } from 'vue'

/** One of a few, all in sight. */
const model = defineModel<Value>({ required: true })
defineProps<{ label: string; options: { value: Value; text: string }[]; error?: string; hiddenLabel?: boolean }>()
const name = useId()
</script>

<template>
  <fieldset class="choice">
    <legend :class="{ 'sr-only': hiddenLabel }">{{ label }}</legend>
    <div class="options">
      <label v-for="option in options" :key="option.value" :class="{ on: model === option.value }">
        <input v-model="model" type="radio" :name="name" :value="option.value" />
        <span>{{ option.text }}</span>
      </label>
    </div>
    <p v-if="error" class="says" role="alert">{{ error }}</p>
  </fieldset>
</template>

<style scoped>
fieldset {
  border: 0;
  padding: 0;
  margin: 0;
  min-width: 0;
}
legend {
  font-size: var(--t-xs);
  color: var(--muted);
  padding: 0 0 var(--s-4);
}
.options {
  display: flex;
  flex-wrap: wrap;
  background: var(--tint);
  border-radius: 12px;
  padding: var(--s-4);
  gap: var(--s-2);
}
label {
  flex: 1 0 auto;
  position: relative;
  text-align: center;
  border-radius: 10px;
  padding: var(--s-6) var(--s-10);
  font-size: var(--t-s);
  cursor: pointer;
}
label.on {
  background: var(--plate);
  box-shadow: 0 0 0 1.5px var(--rim);
  font-weight: 600;
}
label:has(:focus-visible) {
  outline: 3px solid var(--focus);
}
input {
  position: absolute;
  opacity: 0;
  inset: 0;
  cursor: pointer;
}
.says {
  color: var(--stop);
  font-size: var(--t-xs);
  margin: var(--s-4) 0 0;
}
@media (max-width: 720px) {
  label {
    min-height: var(--tap);
    padding: 0 var(--s-10);
    display: grid;
    place-items: center;
  }
}
</style>
