<script setup lang="ts">
import type { Schemas } from '../api/client'
import { usePreferences } from '../app/preferences'
import { percent } from '../kit/units'

/** Pieces of unlike weight, one by one: how heavy, how thick, and how salty each becomes. */
defineProps<{ pieces: Schemas['OnePiece'][]; salt: number[] }>()
const { show } = usePreferences()
</script>

<template>
  <table class="each" aria-label="Each piece by itself">
    <thead>
      <tr>
        <th scope="col">weighs</th>
        <th scope="col">thick</th>
        <th scope="col">salt</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="(one, at) in pieces" :key="at">
        <td>{{ show.mass(one.mass_g) }}</td>
        <td>{{ show.length(one.thickness_cm) }}</td>
        <td>{{ salt[at] === undefined ? '' : percent(salt[at]) }}</td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
.each {
  border-collapse: collapse;
  font-size: var(--t-s);
  font-variant-numeric: tabular-nums;
  width: 100%;
}
th {
  font-weight: 400;
  font-size: var(--t-xs);
  color: var(--muted);
}
th,
td {
  text-align: right;
  padding: var(--s-2) 0;
  border-bottom: 1px solid var(--line);
}
th:first-child,
td:first-child {
  text-align: left;
}
</style>
