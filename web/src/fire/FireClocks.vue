<script setup lang="ts">
import { computed } from 'vue'
import { duration, time } from '../kit/units'
import { useThisFire } from './useFire'

/** The clocks of food safety that run at the fire, by the log's own times. */
const { fire } = useThisFire()
const clocks = computed(() => fire.value?.reading?.clocks ?? [])
</script>

<template>
  <section v-if="clocks.length" class="plate clocks" aria-label="Clocks">
    <h2>Clocks</h2>
    <ul class="rows">
      <li v-for="clock in clocks" :key="`${clock.letter}${clock.kind}`" :class="{ over: clock.over }">
        <span>{{ clock.letter }}: {{ clock.says }}</span>
        <b>{{ duration(clock.took_s) }} of {{ duration(clock.most_s) }}{{ clock.runs ? ', runs' : '' }}</b>
        <small class="muted">since {{ time(clock.since) }}</small>
      </li>
    </ul>
    <p class="muted">Guidance. What your local food authority says comes first.</p>
  </section>
</template>

<style scoped>
.clocks {
  padding: var(--s-14) var(--s-20);
  font-size: var(--t-s);
}
.over b,
.over span {
  color: var(--stop);
}
p {
  margin: var(--s-8) 0 0;
}
</style>
