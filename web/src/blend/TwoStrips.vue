<script setup lang="ts">
import type { Band } from '../draw/grains'
import GrainStrip from '../draw/GrainStrip.vue'

/** Two blends one above the other, each a strip with a word before it. */
defineProps<{ strips: { word: string; label: string; bands: Band[]; height: number }[] }>()
</script>

<template>
  <div class="strips">
    <template v-for="strip in strips" :key="strip.word">
      <span>{{ strip.word }}</span>
      <GrainStrip :bands="strip.bands" :height="strip.height" :label="strip.label" />
    </template>
  </div>
</template>

<style scoped>
.strips {
  display: grid;
  grid-template-columns: auto minmax(0, 1fr);
  gap: var(--s-6) var(--s-12);
  align-items: center;
  font-size: var(--t-s);
  color: var(--muted);
}
</style>
