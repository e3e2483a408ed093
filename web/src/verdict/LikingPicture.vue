<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../api/client'
import Why from '../kit/Why.vue'
import { sure } from '../kit/sure'

/** Mean liking of both sides on every scale, each with its standard error drawn. */
const props = defineProps<{ verdict: Schemas['VerdictOut'] }>()

const at = (score: number) => ((score - 1) / 8) * 100
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
const called = (side: number) => sure(props.verdict.sides[side]).name ?? sure(props.verdict.sides[side]).code
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
      <div class="track" aria-hidden="true">
        <i v-for="n in 9" :key="n" class="tick" :style="{ left: `${at(n)}%` }" />
        <template v-for="mark in row.marks" :key="mark.side">
          <i
            class="error"
            :class="mark.side ? 'b' : 'a'"
            :style="{ left: `${mark.from}%`, width: `${mark.to - mark.from}%` }"
          />
          <i class="mark" :class="mark.side ? 'b' : 'a'" :style="{ left: `${mark.x}%` }" />
        </template>
      </div>
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
  padding: var(--s-20) var(--s-24);
}
.key {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s-4) var(--s-20);
  font-size: var(--t-s);
  margin: var(--s-4) 0 var(--s-6);
}
.row {
  display: grid;
  grid-template-columns: 110px minmax(0, 1fr) 74px;
  gap: var(--s-12);
  align-items: center;
  border-top: 1px solid var(--line);
}
.row b::first-letter {
  text-transform: uppercase;
}
.track {
  position: relative;
  height: 40px;
  margin: 0 var(--s-8);
}
.track::before {
  content: '';
  position: absolute;
  inset: 19.5px 0 auto;
  border-top: 1px solid var(--line-strong);
}
.tick {
  position: absolute;
  top: 16px;
  height: 8px;
  border-left: 1px solid var(--line-strong);
}
.mark,
.error {
  position: absolute;
}
.mark {
  width: 13px;
  height: 13px;
  margin-left: -6.5px;
}
.mark.a {
  top: 5px;
  border-radius: 50%;
  background: var(--piece-a);
}
.mark.b {
  top: 22px;
  background: var(--piece-b);
}
.error {
  height: 3px;
}
.error.a {
  top: 10px;
  background: var(--piece-a);
}
.error.b {
  top: 27px;
  background: var(--piece-b);
}
.key .a {
  fill: var(--piece-a);
}
.key .b {
  fill: var(--piece-b);
}
.n {
  display: flex;
  justify-content: space-between;
}
@media (max-width: 720px) {
  .row {
    grid-template-columns: 92px minmax(0, 1fr) 66px;
    gap: var(--s-6);
  }
}
</style>
