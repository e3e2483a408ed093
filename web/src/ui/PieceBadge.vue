<script setup lang="ts">
/** The letter of an piece; A is solid, B is dashed, so that colour is never alone. */
defineProps<{ letter: string }>()
</script>

<template>
  <span class="badge" :class="letter === 'A' ? 'a' : 'b'">{{ letter }}</span>
</template>

<style scoped>
.badge {
  display: inline-grid;
  place-items: center;
  width: 34px;
  height: 26px;
  border-radius: 13px;
  font-weight: 700;
  font-size: 15px;
  flex: none;
}
.a {
  border: 2.5px solid var(--piece-a);
  color: var(--piece-a);
}
.b {
  border: 2.5px dashed var(--piece-b);
  color: var(--piece-b);
}
</style>
