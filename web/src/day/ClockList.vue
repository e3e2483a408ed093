<script setup lang="ts">
import type { Schemas } from '../api/client'
import { usePreferences } from '../app/preferences'
import { dayAndTime, time } from '../kit/units'
import type { Day } from './useDay'

/** The clocks that run over a day: raw, on the fire, hot, cooling, embers; each from its step on to its step off. */
const props = defineProps<{ day: Day }>()
const { show } = usePreferences()
const whose = (clock: Schemas['DayClock']) => props.day.pieces.find((piece) => piece.letter === clock.letter)?.name
</script>

<template>
  <section class="plate clocks" aria-label="Clocks">
    <h2>Clocks</h2>
    <ul>
      <li
        v-for="clock in day.day.clocks"
        :key="`${clock.letter} ${clock.kind} ${clock.begins_at}`"
        :class="{ over: clock.over }"
      >
        <b>{{ dayAndTime(clock.begins_at) }}–{{ time(clock.ends_at) }}</b>
        <span
          >{{ whose(clock) ? `${whose(clock)}: ` : '' }}{{ show.sentence(clock.says)
          }}{{ clock.over ? '. That is too long.' : '' }}</span
        >
      </li>
    </ul>
    <p class="muted">Usual guidance; what the food authority where you cook says goes first.</p>
  </section>
</template>

<style scoped>
.clocks {
  padding: var(--s-16) var(--s-20);
}
ul {
  list-style: none;
  margin: var(--s-6) 0 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: 128px minmax(0, 1fr);
  gap: var(--s-8);
  padding: var(--s-4) 0;
  border-top: 1px solid var(--line);
  font-size: var(--t-s);
}
.over {
  color: var(--stop);
}
p {
  margin: var(--s-8) 0 0;
  font-size: var(--t-xs);
}
</style>
