<script setup lang="ts">
import type { Schemas } from '../api/client'
import PieceBadge from '../draw/PieceBadge.vue'
import TasterMark from '../table/TasterMark.vue'

/** The count, a plate a card: one row a side, so that a split is seen before it is read. */
defineProps<{ verdict: Schemas['VerdictOut'] }>()
</script>

<template>
  <section class="plate count" aria-labelledby="count">
    <h2 id="count">Who preferred what</h2>
    <div v-for="(side, at) in verdict.sides" :key="side.code" class="side">
      <span class="name"
        ><PieceBadge v-if="side.name" :letter="at ? 'B' : 'A'" /> <b>{{ side.name ?? side.code }}</b>
        <span v-if="side.name" class="muted">{{ side.code }}</span></span
      >
      <span class="plates">
        <TasterMark
          v-for="card in verdict.cards.filter((one) => one.prefers === at)"
          :key="card.taster"
          :name="card.taster"
          :blind="card.blind"
        />
        <span v-if="!side.preferred" class="muted">nobody yet</span>
      </span>
      <b class="n">{{ side.preferred }}</b>
    </div>
  </section>
</template>

<style scoped>
.count {
  padding: var(--s-20) var(--s-24);
}
.side {
  display: grid;
  grid-template-columns: 190px minmax(0, 1fr) 40px;
  align-items: center;
  gap: var(--s-12);
  border-top: 1px solid var(--line);
  padding: var(--s-8) 0;
  min-height: 54px;
}
.count h2 {
  margin-bottom: var(--s-8);
}
.name {
  display: flex;
  align-items: center;
  gap: var(--s-8);
}
.plates {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s-6);
}
.n {
  font-family: var(--display);
  font-size: var(--t-h1);
  text-align: right;
}
@media (max-width: 720px) {
  .side {
    grid-template-columns: minmax(0, 1fr) 30px;
  }
  .plates {
    grid-column: 1 / -1;
    grid-row: 2;
  }
}
</style>
