<script setup lang="ts">
import AddPhase from './AddPhase.vue'
import { heatHere } from './useHeat'

/** Runs of phases to begin from, each with whose school it is; or one phase after another. */
const { known, put } = heatHere()
</script>

<template>
  <div class="starts" role="group" aria-label="Ways to cook it">
    <ul>
      <li v-for="start in known?.starts ?? []" :key="start.key">
        <button type="button" @click="put(start.phases)">
          <b>{{ start.name }}</b> <span class="muted">{{ start.school }}</span>
        </button>
      </li>
    </ul>
    <AddPhase />
  </div>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 0 0 var(--s-12);
  padding: 0;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(240px, 1fr));
  gap: var(--s-8);
}
button {
  text-align: left;
  width: 100%;
  height: 100%;
  min-height: var(--tap);
  padding: var(--s-8) var(--s-12);
  border-radius: 12px;
  box-shadow: inset 0 0 0 1.5px var(--rim);
  line-height: 1.3;
}
button:hover {
  background: var(--tint);
}
b {
  display: block;
}
span {
  font-size: var(--t-s);
}
</style>
