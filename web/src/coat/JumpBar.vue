<script setup lang="ts">
/** On a phone: from one part of a long page to another. */
defineProps<{ parts: { id: string; name: string; stop?: boolean }[] }>()
function jump(id: string) {
  document.getElementById(id)?.scrollIntoView({ block: 'start' })
}
</script>

<template>
  <nav class="jumps" aria-label="Parts of this page">
    <button v-for="part in parts" :key="part.id" type="button" :class="{ stop: part.stop }" @click="jump(part.id)">
      {{ part.name }}
    </button>
  </nav>
</template>

<style scoped>
.jumps {
  display: none;
}
@media (max-width: 720px) {
  .jumps {
    display: flex;
    position: sticky;
    top: 0;
    z-index: 3;
    margin: 0 -14px var(--s-12);
    background: var(--ground);
    border-bottom: 1px solid var(--line-strong);
  }
  button {
    flex: 1;
    min-height: 44px;
    font-weight: 600;
    font-size: var(--t-s);
    color: var(--link);
  }
  .stop {
    color: var(--plate);
    background: var(--stop);
  }
}
</style>
