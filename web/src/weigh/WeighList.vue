<script setup lang="ts">
import { mdiCheck } from '@mdi/js'
import type { Schemas } from '../api/client'

/** All lines of a batch in the order they are weighed, with what lies in the bowl of each. */
defineProps<{ batch: Schemas['BatchOut']; digits: number }>()
</script>

<template>
  <section class="plate list" aria-label="All lines">
    <ol>
      <li v-for="line in batch.lines" :key="line.id" :class="{ now: line.id === batch.current, done: line.done }">
        <v-icon v-if="line.done" :icon="mdiCheck" size="18" aria-label="done" />
        <i v-else aria-hidden="true" />
        <span
          >{{ line.name }}<small v-if="line.added" class="muted">added after tasting</small
          ><small v-else-if="line.done && line.stand === 'under'" class="muted">left short</small></span
        >
        <span class="n"
          >{{ line.poured_g.toFixed(digits) }} <small>/ {{ line.wanted_g.toFixed(digits) }} g</small></span
        >
      </li>
    </ol>
    <p class="total">
      In the bowl <b>{{ batch.poured_g.toFixed(digits) }} g</b>
    </p>
  </section>
</template>

<style scoped>
.list {
  padding: var(--s-14) var(--s-20);
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: 22px minmax(0, 1fr) auto;
  gap: var(--s-8);
  align-items: center;
  padding: var(--s-6) 0;
  border-top: 1px solid var(--line);
  line-height: 1.2;
}
li:first-child {
  border-top: 0;
}
.now {
  font-weight: 700;
}
.now i {
  width: 12px;
  height: 12px;
  border-radius: 50%;
  background: var(--cobalt);
  margin-left: var(--s-4);
}
.done {
  color: var(--muted);
}
small {
  font-size: var(--t-xs);
  color: var(--muted);
}
span > small.muted {
  display: block;
}
.n {
  white-space: nowrap;
}
.total {
  margin: 0;
  padding-top: var(--s-8);
  border-top: 2px solid var(--line-strong);
  display: flex;
  justify-content: space-between;
}
</style>
