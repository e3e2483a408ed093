<script setup lang="ts">
import { computed } from 'vue'
import { useCatalogue } from '../api/catalogue'
import GrainStrip from '../draw/GrainStrip.vue'
import { bandsOfShares } from './bands'
import type { LineDoc } from './useBlend'

/** Ratios to begin an empty blend with, as the trade does; every number can be changed afterwards. */
const props = defineProps<{ kind: string }>()
const emit = defineEmits<{ start: [lines: LineDoc[]] }>()
const { catalogue, grinds } = useCatalogue()
const starters = computed(() =>
  (catalogue.value?.starters ?? [])
    .filter((starter) => starter.kind === props.kind)
    .map((starter) => ({ ...starter, drawn: bandsOfShares(starter.bands, grinds.value) })),
)
</script>

<template>
  <section v-if="starters.length" class="start" aria-label="Start with">
    <h2>Or start with</h2>
    <ul>
      <li v-for="starter in starters" :key="starter.name">
        <button type="button" class="plate" @click="emit('start', starter.lines)">
          <GrainStrip :bands="starter.drawn" :height="54" />
          <b>{{ starter.name }}</b>
          <span class="muted">{{ starter.says }} (common practice, {{ starter.mark }})</span>
        </button>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.start {
  margin-top: var(--s-20);
}
ul {
  list-style: none;
  margin: var(--s-10) 0 0;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(100%, 230px), 1fr));
  gap: var(--s-14);
}
li {
  display: grid;
}
button {
  text-align: left;
  padding: var(--s-14) var(--s-16) var(--s-16);
  display: grid;
  align-content: start;
  gap: var(--s-6);
  cursor: pointer;
}
button:hover {
  background: var(--tint);
}
.muted {
  font-size: var(--t-s);
  line-height: 1.35;
}
</style>
