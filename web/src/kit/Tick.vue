<script setup lang="ts">
/** Yes or no, with what it is about beside it. */
const on = defineModel<boolean>({ required: true })
defineProps<{ disabled?: boolean }>()
</script>

<template>
  <label class="tick-box" :class="{ disabled }">
    <input v-model="on" type="checkbox" :disabled="disabled" />
    <span><slot /></span>
  </label>
</template>

<style scoped>
.tick-box {
  display: flex;
  gap: var(--s-10);
  align-items: center;
  min-height: var(--tap);
  cursor: pointer;
}
.disabled {
  cursor: default;
}
input {
  width: 20px;
  height: 20px;
  accent-color: var(--cobalt);
  flex: none;
  margin: 0;
}
</style>
