<script setup lang="ts">
import type { Schemas } from '../api/client'
import { usePreferences } from '../app/preferences'
import Why from '../kit/Why.vue'

/** What meat to buy: for all who eat, or for what is on the board, with what is trimmed off it. */
defineProps<{ rows: Schemas['BuyOut'][]; serves: number; eaters: number | null }>()
const { show } = usePreferences()
</script>

<template>
  <div class="buy">
    <h3>What meat to buy</h3>
    <p class="muted">
      {{ eaters ? `For ${eaters} who eat` : 'For what is on the board' }}; it serves {{ serves.toFixed(1) }} as it is
      weighed now.
    </p>
    <ul>
      <li v-for="row in rows" :key="row.letter">
        <b
          ><Why :figure="row.buy" :of="`${row.cut} to buy`">{{ show.mass(row.buy.value) }}</Why></b
        >
        {{ row.cut }}, {{ row.name }}:
        <span class="muted">
          <Why :figure="row.raw" :of="`${row.cut} on the board`">{{ show.mass(row.raw.value) }}</Why> on the
          board<template v-if="row.trim.value > 0.5"
            >, <Why :figure="row.trim" of="What comes off">{{ Math.round(row.trim.value) }} %</Why> comes off</template
          >
        </span>
      </li>
    </ul>
  </div>
</template>

<style scoped>
.buy {
  border-top: 1px solid var(--line);
  padding-top: var(--s-10);
  display: grid;
  gap: var(--s-6);
}
h3 {
  font-size: var(--t-m);
}
p,
ul {
  margin: 0;
  padding: 0;
  font-size: var(--t-s);
}
ul {
  list-style: none;
  display: grid;
  gap: var(--s-6);
}
</style>
