<script setup lang="ts">
import type { Station } from './stations'

/** A station that is not built yet: one sentence on what will be there. */
defineProps<{ station: Station }>()
</script>

<template>
  <main class="later">
    <h1>{{ station.name }}</h1>
    <p>{{ station.later }}</p>
    <p class="muted">This station is not built yet. <router-link to="/">Back to the cook in hand</router-link></p>
  </main>
</template>

<style scoped>
.later {
  display: grid;
  align-content: center;
  min-height: 70vh;
  max-width: 46ch;
  margin: auto;
  padding-left: 28px;
  border-left: 3px dashed var(--line-strong);
}
p {
  font-size: 18px;
}
.muted {
  font-size: 15px;
}
</style>
