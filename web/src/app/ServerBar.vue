<script setup lang="ts">
import { trouble } from '../api/server'

/** What is wrong with the server or its book, until that is over; all else on the screen stays as it was. */
</script>

<template>
  <section v-if="trouble" class="trouble plate" role="alert">
    <h2>{{ trouble.title }}</h2>
    <p v-for="sentence in trouble.says" :key="sentence">{{ sentence.replaceAll('`', '') }}</p>
  </section>
</template>

<style scoped>
.trouble {
  padding: var(--s-14) var(--s-24);
  margin-bottom: var(--s-16);
  border-color: var(--caution);
}
h2 {
  font-size: var(--t-xl);
  color: var(--caution);
}
p {
  margin: var(--s-4) 0 0;
  overflow-wrap: anywhere;
  max-width: 90ch;
}
</style>
