<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../api/client'
import PieceBadge from '../draw/PieceBadge.vue'
import TasterMark from '../table/TasterMark.vue'

/** Who picked out the odd plate and who did not: a plate a card, and from how many on it is more than guessing. */
const props = defineProps<{ verdict: Schemas['VerdictOut'] }>()
const right = computed(() => props.verdict.cards.filter((card) => card.right === true))
const wrong = computed(() => props.verdict.cards.filter((card) => card.right === false))
const cards = computed(() => [...right.value, ...wrong.value])
</script>

<template>
  <section class="plate odd" aria-labelledby="odd">
    <h2 id="odd">Who picked out the odd plate</h2>
    <p class="muted">
      {{
        verdict.reading.needed
          ? `${verdict.reading.needed} right of ${cards.length} are more than guessing`
          : 'So few cards cannot tell it from guessing'
      }}; a third is right by chance.
    </p>
    <div class="dots" aria-hidden="true">
      <template v-for="(card, n) in cards" :key="card.taster">
        <i v-if="n === (verdict.reading.needed ?? -1)" class="line" />
        <span :class="{ right: card.right }" />
      </template>
    </div>
    <div class="side">
      <b>Picked it out</b>
      <span class="marks"
        ><TasterMark v-for="card in right" :key="card.taster" :name="card.taster" :blind="card.blind"
      /></span>
      <b class="n">{{ right.length }}</b>
    </div>
    <div class="side">
      <b>Took another</b>
      <span class="marks"
        ><TasterMark v-for="card in wrong" :key="card.taster" :name="card.taster" :blind="card.blind"
      /></span>
      <b class="n">{{ wrong.length }}</b>
    </div>
    <p class="codes">
      <span v-for="side in verdict.sides" :key="side.codes[0]">
        <PieceBadge v-if="side.letter" :letter="side.letter" /> <b>{{ side.name }}</b>
        <span class="muted">{{ side.codes.join(' and ') }}</span>
      </span>
    </p>
  </section>
</template>

<style scoped>
.odd {
  padding: var(--s-20) var(--s-24);
}
.odd > p {
  margin: var(--s-2) 0 var(--s-12);
}
.dots {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s-8);
  margin-bottom: var(--s-16);
}
.dots span {
  width: 34px;
  height: 34px;
  border-radius: 50%;
  border: 2px solid var(--rim);
}
.dots .right {
  background: var(--cobalt);
}
.dots .line {
  height: 48px;
  border-left: 3px dashed var(--ink);
}
.side {
  display: grid;
  grid-template-columns: 130px minmax(0, 1fr) auto;
  gap: var(--s-12);
  align-items: center;
  border-top: 1px solid var(--line);
  padding: var(--s-8) 0;
}
.marks {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s-6);
}
.n {
  font-family: var(--display);
  font-size: var(--t-h1);
}
.odd > .codes {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s-8) var(--s-24);
  border-top: 1px solid var(--line);
  padding-top: var(--s-10);
  margin: 0;
}
.codes > span {
  display: inline-flex;
  align-items: center;
  gap: var(--s-8);
}
</style>
