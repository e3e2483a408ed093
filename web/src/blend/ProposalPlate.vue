<script setup lang="ts">
import { computed } from 'vue'
import { useCatalogue } from '../api/catalogue'
import { bandsOf } from './bands'
import TwoStrips from './TwoStrips.vue'
import type { Proposed } from './useProposal'

/** A proposed blend under the one at hand: two strips, the difference in words, the reasons; take it or leave it. */
const skip = defineModel<string[]>('skip', { default: () => [] })
const props = defineProps<{ proposed: Proposed; now: ReturnType<typeof bandsOf> }>()
defineEmits<{ take: []; branch: []; leave: [] }>()
const { grinds } = useCatalogue()

const answer = computed(() => props.proposed.answer)
const bands = computed(() => bandsOf(answer.value.reading, grinds.value))
const can = computed(() => !answer.value.unchanged && answer.value.lines.length > 0)
function toggle(id: string, on: boolean) {
  skip.value = on ? skip.value.filter((other) => other !== id) : [...skip.value, id]
}
</script>

<template>
  <section class="proposal plate" :aria-label="proposed.title">
    <header>
      <h2>{{ proposed.title }}</h2>
      <span class="tools">
        <template v-if="can">
          <v-btn class="solid" @click="$emit('take')">{{ answer.met ? 'Take it' : 'Take the closest' }}</v-btn>
          <v-btn @click="$emit('branch')">As a branch</v-btn>
        </template>
        <v-btn class="quiet" @click="$emit('leave')">{{ can ? 'Leave it' : 'Close' }}</v-btn>
      </span>
    </header>
    <p v-for="note in answer.notes" :key="note" class="note" role="status">{{ note }}</p>
    <p v-if="answer.unchanged && !answer.notes.length && !answer.changes.length" role="status">
      Every target is met already.
    </p>
    <TwoStrips
      v-if="can"
      class="strips"
      :strips="[
        { word: 'now', label: 'Now', bands: now, height: 26 },
        { word: 'then', label: 'Proposed', bands, height: 40 },
      ]"
    />
    <p v-if="can && answer.difference.words.length" class="words">{{ answer.difference.words.join(', ') }}</p>
    <ul v-if="answer.changes.length">
      <li v-for="change in answer.changes" :key="change.id">
        <label>
          <input
            type="checkbox"
            :checked="!skip.includes(change.id)"
            @change="toggle(change.id, ($event.target as HTMLInputElement).checked)"
          />
          <span
            ><b>{{ change.text }}</b> <span class="muted">{{ change.reason }} ({{ change.mark }})</span></span
          >
        </label>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.proposal {
  padding: var(--s-16) var(--s-24);
  margin-top: var(--s-14);
  display: grid;
  gap: var(--s-10);
  /* it answers what is changed further down, so it stays in sight */
  position: sticky;
  top: 8px;
  z-index: 3;
  max-height: 56vh;
  overflow: auto;
}
header {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: center;
  gap: var(--s-6) var(--s-14);
}
.tools {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s-8);
}
p {
  margin: 0;
}
.note {
  color: var(--caution);
}
.words {
  font-weight: 600;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li label {
  display: flex;
  gap: var(--s-10);
  padding: var(--s-6) 0;
  cursor: pointer;
}
input {
  width: 19px;
  height: 19px;
  flex: none;
  margin: var(--s-2) 0 0;
  accent-color: var(--cobalt);
}
@media (max-width: 720px) {
  .proposal {
    top: 0;
    padding: var(--s-12) var(--s-16);
    gap: var(--s-6);
    max-height: 44vh;
  }
  .strips > :deep(:nth-child(-n + 2)) {
    display: none;
  }
  .tools :deep(.v-btn) {
    padding: 0 var(--s-12);
    font-size: var(--t-s);
  }
}
</style>
