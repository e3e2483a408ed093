<script setup lang="ts">
/** A small thing done with a row, by its picture; what it is called is read aloud. */
withDefaults(defineProps<{ icon: string; label: string; size?: number }>(), { size: 17 })
</script>

<template>
  <button type="button" :aria-label="label"><v-icon :icon="icon" :size="size" /></button>
</template>

<style scoped>
button {
  width: 30px;
  height: 34px;
  border-radius: 10px;
  color: var(--muted);
  padding: 0;
}
button:hover {
  background: var(--tint);
}
button:disabled {
  opacity: 0.3;
  cursor: default;
}
@media (max-width: 720px) {
  button {
    width: 44px;
    height: 44px;
  }
}
</style>
