<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../api/client'

/** Samples two by two: the mean difference with where it lies 95 times in 100, nothing in the middle. */
const props = defineProps<{ verdict: Schemas['VerdictOut'] }>()
const pairs = computed(() => props.verdict.reading.pairs)
const reach = computed(() => {
  const ends = pairs.value.flatMap(({ liking }) => [liking?.low ?? 0, liking?.high ?? 0, liking?.mean ?? 0])
  return Math.max(1, Math.ceil(Math.max(...ends.map(Math.abs))))
})
const at = (points: number) => 50 + (points / reach.value) * 50
const name = (side: number) => props.verdict.sides[side]?.name ?? props.verdict.sides[side]?.codes[0] ?? ''
</script>

<template>
  <section v-if="pairs.length" class="plate pairs" aria-labelledby="pairs">
    <h2 id="pairs">How far apart</h2>
    <div v-for="pair in pairs" :key="`${pair.first} ${pair.second}`" class="pair">
      <p v-if="pairs.length > 1">{{ pair.says }}</p>
      <div v-if="pair.liking" class="axis" aria-hidden="true">
        <span class="left">{{ name(pair.first) }}</span>
        <span class="track">
          <i class="zero" />
          <i
            v-if="pair.liking.low !== null && pair.liking.high !== null"
            class="range"
            :class="{ apart: pair.apart }"
            :style="{
              left: `${at(pair.liking.low ?? 0)}%`,
              width: `${at(pair.liking.high ?? 0) - at(pair.liking.low ?? 0)}%`,
            }"
          />
          <i class="mean" :style="{ left: `${at(pair.liking.mean)}%` }" />
        </span>
        <span>{{ name(pair.second) }}</span>
      </div>
    </div>
  </section>
</template>

<style scoped>
.pairs {
  padding: var(--s-20) var(--s-24);
}
.pair {
  border-top: 1px solid var(--line);
  padding: var(--s-8) 0;
}
.pair:first-of-type {
  margin-top: var(--s-8);
}
.pair p {
  margin: 0 0 var(--s-4);
  font-size: var(--t-m);
}
.axis {
  display: grid;
  grid-template-columns: minmax(70px, 130px) minmax(0, 1fr) minmax(70px, 130px);
  gap: var(--s-12);
  align-items: center;
  font-size: var(--t-s);
  color: var(--muted);
}
.left {
  text-align: right;
}
.track {
  position: relative;
  height: 22px;
}
.track::before {
  content: '';
  position: absolute;
  inset: 10.5px 0 auto;
  border-top: 1px solid var(--line-strong);
}
.track i {
  position: absolute;
}
.zero {
  left: 50%;
  height: 22px;
  border-left: 2px solid var(--line-strong);
}
.range {
  top: 7px;
  height: 8px;
  border-radius: 4px;
  background: var(--line-strong);
}
.range.apart {
  background: var(--cobalt);
}
.mean {
  top: 4px;
  width: 14px;
  height: 14px;
  margin-left: -7px;
  border-radius: 50%;
  background: var(--plate);
  border: 3px solid var(--ink);
}
@media (max-width: 720px) {
  .axis {
    grid-template-columns: 1fr 1fr;
    gap: var(--s-4);
  }
  .axis .left {
    text-align: left;
  }
  .axis span:last-child {
    text-align: right;
  }
  .track {
    grid-column: 1 / -1;
    grid-row: 2;
  }
}
</style>
