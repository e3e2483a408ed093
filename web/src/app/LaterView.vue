<script setup lang="ts">
import type { Station } from './stations'

/** A station that is not built yet: an empty place at the table, and one sentence on what will be there. */
defineProps<{ station: Station }>()
</script>

<template>
  <main class="later">
    <svg viewBox="0 0 200 200" width="220" aria-hidden="true">
      <circle cx="100" cy="100" r="95" />
      <circle cx="100" cy="100" r="66" />
    </svg>
    <div>
      <h1>{{ station.name }}</h1>
      <p>{{ station.later }}</p>
      <p class="muted">This station is not built yet. <router-link to="/">Back to the cook in hand</router-link></p>
    </div>
  </main>
</template>

<style scoped>
.later {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  justify-content: center;
  gap: var(--s-32) 48px;
  min-height: 76vh;
}
.later > div {
  max-width: 44ch;
}
circle {
  fill: none;
  stroke: var(--line-strong);
  stroke-width: 3;
  stroke-dasharray: 9 7;
}
p {
  font-size: var(--t-xl);
  margin: var(--s-10) 0 0;
}
.muted {
  font-size: var(--t-m);
}
</style>
