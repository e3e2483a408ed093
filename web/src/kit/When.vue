<script setup lang="ts">
import { computed, ref, useId } from 'vue'
import { dayInFull } from './units'

/** A day and a time, read in words; pointed at or tabbed to, the browser's own field for it. */
const typed = defineModel<string>({ required: true })
defineProps<{ label: string; error?: string; inline?: boolean }>()
const id = useId()
const open = ref(false)
const words = computed(() => dayInFull(typed.value))
</script>

<template>
  <div class="when" :class="{ inline, open, wrong: error }">
    <label :for="id">{{ label }}</label>
    <span class="box">
      <input
        :id="id"
        v-model="typed"
        type="datetime-local"
        :aria-invalid="!!error"
        :aria-describedby="error ? `${id}-says` : undefined"
        @focus="open = true"
        @blur="open = false"
      />
      <span v-if="!open" class="words" :class="{ muted: !words }" aria-hidden="true">{{
        words || 'a day and a time'
      }}</span>
    </span>
    <p v-if="error" :id="`${id}-says`" class="says" role="alert">{{ error }}</p>
  </div>
</template>

<style scoped>
label {
  font-size: var(--t-xs);
  color: var(--muted);
  display: block;
  padding-bottom: var(--s-4);
}
.inline {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s-2) var(--s-10);
}
.inline label {
  padding: 0;
  font-size: var(--t-m);
}
.box {
  position: relative;
  display: block;
  min-width: 236px;
}
/* the words lie over the field, which is there for the pointer, the keys and the reader of screens */
.words {
  position: absolute;
  inset: 0;
  display: flex;
  align-items: center;
  padding: 0 var(--s-10);
  border-radius: 10px;
  background: var(--tint);
  pointer-events: none;
  white-space: nowrap;
  overflow: hidden;
}
.inline .words {
  background: var(--ground);
  padding: 0 var(--s-2);
  text-decoration: underline dotted var(--line-strong);
  text-underline-offset: 4px;
}
.says {
  color: var(--stop);
  font-size: var(--t-xs);
  margin: var(--s-4) 0 0;
}
</style>
