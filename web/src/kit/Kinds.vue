<script setup lang="ts">
/** Kinds beside each other, of which one is shown; pressed again it is let go where none may be. */
const kind = defineModel<string>({ required: true })
defineProps<{ kinds: readonly string[]; label: string; none?: boolean }>()
</script>

<template>
  <div class="kinds" role="group" :aria-label="label">
    <button
      v-for="one in kinds"
      :key="one"
      type="button"
      :aria-pressed="kind === one"
      @click="kind = none && kind === one ? '' : one"
    >
      {{ one }}
    </button>
  </div>
</template>

<style scoped>
.kinds {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s-4);
}
button {
  padding: 0 var(--s-12);
  min-height: var(--tap);
  border-radius: 19px;
  font-size: var(--t-s);
  color: var(--muted);
}
button[aria-pressed='true'] {
  background: var(--plate);
  box-shadow: 0 0 0 1.5px var(--rim);
  color: var(--ink);
  font-weight: 600;
}
</style>
