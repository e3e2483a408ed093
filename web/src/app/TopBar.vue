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
    gap: var(--s-4);
    background: var(--deep);
    color: #fff;
    padding: var(--s-4) var(--s-14);
  }
  a {
    display: flex;
    align-items: center;
    gap: var(--s-10);
    font-family: var(--display);
    font-weight: 700;
    font-size: var(--t-h3);
    margin-right: auto;
    min-height: 44px;
  }
  button {
    min-height: 44px;
    padding: 0 var(--s-10);
    color: #fff;
    font-size: var(--t-m);
  }
}
</style>
