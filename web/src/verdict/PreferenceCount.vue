<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../api/client'
import PieceBadge from '../draw/PieceBadge.vue'
import TasterMark from '../table/TasterMark.vue'

/** The count, a pennant a card: one row a sample, so that a split is seen before it is read. */
const props = defineProps<{ verdict: Schemas['VerdictOut'] }>()
const title = computed(() => ({ preference: 'Who preferred what', ranking: 'Who ranked what first', scores: 'Whose best was what', triangle: '' })[props.verdict.kind]) // prettier-ignore
const of = (at: number) => props.verdict.cards.filter((card) => card.best.includes(at))
</script>

<template>
  <section class="plate count" aria-labelledby="count">
    <h2 id="count">{{ title }}</h2>
    <div v-for="(side, at) in verdict.sides" :key="side.codes[0]" class="side">
      <span class="name"
        ><PieceBadge v-if="side.letter" :letter="side.letter" /> <b>{{ side.name ?? side.codes[0] }}</b>
        <span v-if="side.name" class="muted">{{ side.codes.join(' and ') }}</span></span
      >
      <span class="plates">
        <TasterMark v-for="card in of(at)" :key="card.taster" :name="card.taster" :blind="card.blind" />
        <span v-if="!of(at).length" class="muted">nobody{{ verdict.revealed ? '' : ' yet' }}</span>
      </span>
      <b class="n"
        >{{ side.votes }}<small v-if="side.children && verdict.kind !== 'preference'"> + {{ side.children }}</small></b
      >
    </div>
    <p v-if="verdict.kind !== 'preference' && verdict.sides.some((side) => side.children)" class="muted">
      + children’s votes, which have no points
    </p>
  </section>
</template>

<style scoped>
.count {
  padding: var(--s-20) var(--s-24);
}
.side {
  display: grid;
  grid-template-columns: 210px minmax(0, 1fr) auto;
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
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s-2) var(--s-8);
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
.n small {
  font-size: var(--t-m);
  font-weight: 400;
}
@media (max-width: 720px) {
  .side {
    grid-template-columns: minmax(0, 1fr) auto;
  }
  .plates {
    grid-column: 1 / -1;
    grid-row: 2;
  }
}
</style>
