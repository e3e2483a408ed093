<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../api/client'
import Why from '../ui/Why.vue'

/** Mean liking of both sides on every scale, each with its standard error drawn. */
const props = defineProps<{ verdict: Schemas['VerdictOut'] }>()

const at = (score: number) => 10 + ((score - 1) / 8) * 480
const rows = computed(() =>
  props.verdict.liking.map((liking) => ({
    ...liking,
    marks: liking.means.map((mean, side) => ({
      mean,
      side,
      x: at(mean.value),
      from: at(mean.low ?? mean.value),
      to: at(mean.high ?? mean.value),
    })),
  })),
)
const called = (side: number) => props.verdict.sides[side].name ?? props.verdict.sides[side].code
</script>

<template>
  <section class="plate liking" aria-labelledby="liking">
    <h2 id="liking">How it was liked, 1 to 9</h2>
    <p class="muted key">
      <span v-for="side in [0, 1]" :key="side">
        <svg width="26" height="14" aria-hidden="true">
          <circle v-if="!side" cx="13" cy="7" r="6" class="a" />
          <rect v-else x="7.5" y="1.5" width="11" height="11" class="b" />
        </svg>
        {{ called(side) }}
      </span>
      <span>line: one standard error</span>
    </p>
    <div v-for="row in rows" :key="row.scale" class="row">
      <b>{{ row.scale }}</b>
      <svg viewBox="0 0 500 40" preserveAspectRatio="none" class="track" aria-hidden="true">
        <line x1="10" x2="490" y1="20" y2="20" class="axis" />
        <line v-for="n in 9" :key="n" :x1="at(n)" :x2="at(n)" y1="16" y2="24" class="axis" />
        <line
          v-for="mark in row.marks"
          :key="`e${mark.side}`"
          :x1="mark.from"
          :x2="mark.to"
          :y1="mark.side ? 28 : 12"
          :y2="mark.side ? 28 : 12"
          :class="mark.side ? 'b' : 'a'"
          class="error"
        />
        <template v-for="mark in row.marks" :key="mark.side">
          <circle v-if="!mark.side" :cx="mark.x" cy="12" r="7" class="a" />
          <rect v-else :x="mark.x - 6" y="22" width="12" height="12" class="b" />
        </template>
      </svg>
      <span class="n">
        <Why
          v-for="mark in row.marks"
          :key="mark.side"
          :figure="mark.mean"
          :of="`${row.scale}, ${called(mark.side)}`"
          >{{ mark.mean.value.toFixed(1) }}</Why
        >
      </span>
    </div>
  </section>
</template>

<style scoped>
.liking {
  padding: 18px 24px;
}
.key {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 18px;
  font-size: 14px;
  margin: 4px 0 6px;
}
.row {
  display: grid;
  grid-template-columns: 110px minmax(0, 1fr) 74px;
  gap: 12px;
  align-items: center;
  border-top: 1px solid var(--line);
}
.row b::first-letter {
  text-transform: uppercase;
}
.track {
  width: 100%;
  height: 40px;
}
.axis {
  stroke: var(--line-strong);
  stroke-width: 1;
}
.a {
  fill: var(--arm-a);
  stroke: var(--arm-a);
}
.b {
  fill: var(--arm-b);
  stroke: var(--arm-b);
}
.error {
  stroke-width: 3;
}
.n {
  display: flex;
  justify-content: space-between;
}
</style>
