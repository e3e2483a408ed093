<script setup lang="ts">
import type { Schemas } from '../api/client'

/** The count, a plate a card: one row a side, so that a split is seen before it is read. */
defineProps<{ verdict: Schemas['VerdictOut'] }>()
</script>

<template>
  <section class="plate count" aria-labelledby="count">
    <h2 id="count">Who preferred what</h2>
    <div v-for="(side, at) in verdict.sides" :key="side.code" class="side">
      <span class="name"
        ><b>{{ side.name ?? side.code }}</b> <span v-if="side.name" class="muted">{{ side.code }}</span></span
      >
      <span class="plates">
        <svg
          v-for="card in verdict.cards.filter((one) => one.prefers === at)"
          :key="card.taster"
          width="34"
          height="34"
          viewBox="0 0 34 34"
          role="img"
          :aria-label="`${card.taster}${card.blind ? '' : ', not blind'}`"
        >
          <title>{{ card.taster }}{{ card.blind ? '' : ', not blind' }}</title>
          <circle cx="17" cy="17" r="14.5" :class="at ? 'b' : 'a'" :stroke-dasharray="at ? '5 3' : undefined" />
          <text x="17" y="22" text-anchor="middle">{{ card.taster[0] }}</text>
        </svg>
        <span v-if="!side.preferred" class="muted">nobody yet</span>
      </span>
      <b class="n">{{ side.preferred }}</b>
    </div>
  </section>
</template>

<style scoped>
.count {
  padding: 18px 24px;
}
.side {
  display: grid;
  grid-template-columns: 150px minmax(0, 1fr) 40px;
  align-items: center;
  gap: 12px;
  border-top: 1px solid var(--line);
  padding: 8px 0;
  min-height: 54px;
}
h2 {
  margin-bottom: 8px !important;
}
.plates {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
circle {
  fill: var(--plate);
  stroke-width: 3;
}
.a {
  stroke: var(--piece-a);
}
.b {
  stroke: var(--piece-b);
}
text {
  font-size: 15px;
  font-weight: 600;
  fill: var(--ink);
}
.n {
  font-family: var(--display);
  font-size: 24px;
  text-align: right;
}
@media (max-width: 720px) {
  .side {
    grid-template-columns: 96px minmax(0, 1fr) 30px;
  }
}
</style>
