<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../api/client'
import Why from '../kit/Why.vue'
import { sure } from '../kit/sure'
import SampleDot from './SampleDot.vue'

/** Mean liking of every sample on every scale, each with its standard error drawn. */
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
const sides = computed(() => props.verdict.sides)
const called = (side: number) => sure(sides.value[side]).name ?? sure(sides.value[side]).codes[0]
/** A mark goes by its piece once that is told; before it by the place of its code. */
const letter = (side: number) => sides.value[side]?.letter ?? 'ABCDEFGH'.charAt(side)
</script>

<template>
  <section class="plate liking" aria-labelledby="liking">
    <h2 id="liking">How it was liked, 1 to 9</h2>
    <p class="muted key">
      <span v-for="(side, n) in sides" :key="side.codes[0]"><SampleDot :letter="letter(n)" /> {{ called(n) }}</span>
      <span>line: one standard error</span>
    </p>
    <div v-for="row in rows" :key="row.scale" class="row">
      <b>{{ row.scale }}</b>
      <div class="track" :style="{ height: `${16 + 17 * row.marks.length}px` }" aria-hidden="true">
        <i v-for="n in 9" :key="n" class="tick" :style="{ left: `${at(n)}%` }" />
        <span
          v-for="mark in row.marks"
          :key="mark.side"
          :class="`tone-${letter(mark.side).toLowerCase()}`"
          class="line"
          :style="{ top: `${10 + 17 * mark.side}px` }"
        >
          <i class="error" :style="{ left: `${mark.from}%`, width: `${mark.to - mark.from}%` }" />
          <SampleDot :letter="letter(mark.side)" class="mark" :style="{ left: `${mark.x}%` }" />
        </span>
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
.key span {
  display: inline-flex;
  align-items: center;
  gap: var(--s-6);
}
.row {
  display: grid;
  grid-template-columns: 110px minmax(0, 1fr) auto;
  gap: var(--s-12);
  align-items: center;
  border-top: 1px solid var(--line);
}
.row b::first-letter {
  text-transform: uppercase;
}
.track {
  position: relative;
  margin: 0 var(--s-8);
}
.tick {
  position: absolute;
  top: 8px;
  bottom: 8px;
  border-left: 1px solid var(--line);
}
.line {
  position: absolute;
  left: 0;
  right: 0;
  height: 0;
}
.mark {
  position: absolute;
  transform: translate(-50%, -50%);
}
.error {
  position: absolute;
  height: 3px;
  top: -1.5px;
  background: currentcolor;
}
.tone-a {
  color: var(--piece-a);
}
.tone-b {
  color: var(--piece-b);
}
.tone-c {
  color: var(--piece-c);
}
.tone-d {
  color: var(--piece-d);
}
.tone-e {
  color: var(--piece-e);
}
.tone-f {
  color: var(--piece-f);
}
.tone-g {
  color: var(--piece-g);
}
.tone-h {
  color: var(--piece-h);
}
.n {
  display: grid;
  justify-items: end;
}
@media (max-width: 720px) {
  .row {
    grid-template-columns: 84px minmax(0, 1fr) auto;
    gap: var(--s-6);
  }
}
</style>
