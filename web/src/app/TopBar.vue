<script setup lang="ts">
/** On a phone the rail is at the bottom; the mark, the finder and the settings stand up here. */
defineEmits<{ find: []; settings: [] }>()
</script>

<template>
  <header class="top">
    <router-link to="/" aria-label="Ravska, home"
      ><img src="/mark.svg" alt="" width="30" height="30" />Ravska</router-link
    >
    <button type="button" @click="$emit('find')">Find</button>
    <button type="button" @click="$emit('settings')">Units, theme</button>
  </header>
</template>

<style scoped>
.top {
  display: none;
}
@media (max-width: 720px) {
  .top {
    display: flex;
    align-items: center;
    gap: 4px;
    background: var(--deep);
    color: #fff;
    padding: 4px 14px;
  }
  a {
    display: flex;
    align-items: center;
    gap: 9px;
    font-family: var(--display);
    font-weight: 700;
    font-size: 19px;
    margin-right: auto;
    min-height: 44px;
  }
  button {
    min-height: 44px;
    padding: 0 10px;
    color: #fff;
    font-size: 15px;
  }
}
</style>
