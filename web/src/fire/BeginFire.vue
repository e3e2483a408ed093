<script setup lang="ts">
import PieceBadge from '../draw/PieceBadge.vue'
import { useThisFire } from './useFire'

/** Before the fire: light it, or say what is on it already. */
const { fire, tapAndSay } = useThisFire()
</script>

<template>
  <section class="answer begin" aria-label="Begin">
    <p class="big">Light the fire, or say what is on it</p>
    <div class="ways">
      <button type="button" class="go" @click="tapAndSay('The fire has begun', 'began')">The fire is lit</button>
      <button
        v-for="piece in fire?.pieces ?? []"
        :key="piece.letter"
        type="button"
        class="go"
        @click="tapAndSay(`${piece.letter} is on`, 'on', { letter: piece.letter })"
      >
        <PieceBadge :letter="piece.letter" /> {{ piece.name }} is on now
      </button>
    </div>
    <p v-if="fire?.noted" class="noted"><b>Last time you noted:</b> {{ fire.noted }}</p>
    <ul>
      <li v-for="piece in fire?.pieces ?? []" :key="piece.letter">
        {{ piece.letter }}, {{ piece.about }}: {{ piece.phases.join('; ') || 'no phases yet' }}. {{ piece.says }}
      </li>
    </ul>
  </section>
</template>

<style scoped>
.begin {
  padding: var(--s-20) var(--s-24);
  display: grid;
  gap: var(--s-14);
}
.big {
  margin: 0;
  font-size: var(--t-big);
}
.noted {
  margin: 0;
  white-space: pre-line;
}
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s-10);
}
.go {
  display: inline-flex;
  gap: var(--s-8);
  align-items: center;
  min-height: 52px;
  padding: 0 var(--s-16) !important;
  border-radius: 14px;
  background: var(--tint) !important;
  font-weight: 650 !important;
}
ul {
  margin: 0;
  padding-left: var(--s-20);
  font-size: var(--t-s);
}
</style>
