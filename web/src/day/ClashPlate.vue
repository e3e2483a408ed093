<script setup lang="ts">
import { mdiAlert } from '@mdi/js'
import type { Schemas } from '../api/client'
import { usePreferences } from '../app/preferences'
import { dayAndTime } from '../kit/units'

/** What cannot be in a day, and ways out of it, each with what it costs. */
defineProps<{ clashes: Schemas['DayClash'][]; ways: Schemas['OutOfClash'][] | undefined; looking: boolean }>()
defineEmits<{ take: [key: string[]]; look: []; stop: [] }>()
const { show } = usePreferences()
</script>

<template>
  <section class="plate clashes" aria-label="What does not fit">
    <h2>
      <v-icon :icon="mdiAlert" size="20" aria-hidden="true" />
      {{ clashes.length === 1 ? 'One thing does not fit' : `${clashes.length} things do not fit` }}
    </h2>
    <p v-for="(clash, n) in clashes" :key="n">
      <b>{{ dayAndTime(clash.at) }}</b> {{ show.sentence(clash.says) }}
    </p>
    <p v-if="looking" class="muted" role="status">
      Looking for ways out … <button type="button" class="link" @click="$emit('stop')">Stop</button>
    </p>
    <p v-else-if="!ways"><button type="button" class="link" @click="$emit('look')">Look for ways out</button></p>
    <p v-else-if="!ways.length" class="muted">
      No single change makes room. Take a phase or a piece off it in Coat, or move supper by more than a day.
    </p>
    <ul v-else class="ways">
      <li v-for="way in ways" :key="way.key.join()">
        <v-btn class="solid" @click="$emit('take', way.key)">{{ show.sentence(way.says) }}</v-btn>
        <span>{{ show.sentence(way.costs) }}{{ way.left ? `; ${way.left} left that do not fit` : '' }}</span>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.clashes {
  padding: var(--s-16) var(--s-20);
  border-color: var(--caution);
}
h2 {
  color: var(--caution);
}
p {
  margin: var(--s-6) 0 0;
}
.ways {
  list-style: none;
  padding: 0;
  margin: var(--s-12) 0 0;
  display: grid;
  gap: var(--s-8);
}
.ways li {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s-4) var(--s-12);
}
</style>
