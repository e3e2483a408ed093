<script setup lang="ts">
/** The letter of an arm; A is solid, B is dashed, so that colour is never alone. */
defineProps<{ label: string }>()
</script>

<template>
  <span class="badge" :class="label === 'A' ? 'a' : 'b'">{{ label }}</span>
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
  border: 2.5px solid var(--arm-a);
  color: var(--arm-a);
}
.b {
  border: 2.5px dashed var(--arm-b);
  color: var(--arm-b);
}
</style>
