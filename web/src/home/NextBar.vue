<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../api/client'
import { usePreferences } from '../app/preferences'
import { dayAndTime } from '../kit/units'
import { stepDetail, stepName } from './steps'

/** The one next thing to do. */
const props = defineProps<{ next: Schemas['NextOut']; piece: Schemas['BoardPieceOut'] }>()
defineEmits<{ done: [] }>()
const { show } = usePreferences()

const step = computed(() => props.piece.steps.find((one) => one.id === props.next.step_id))
const late = computed(() => new Date(props.next.begins_at).getTime() < Date.now())
const detail = computed(() => (step.value ? stepDetail(step.value, props.piece, show.value) : ''))
</script>

<template>
  <section class="answer next" aria-label="Next thing to do">
    <p class="big">{{ late ? 'Now, was due' : 'Next,' }} {{ dayAndTime(next.begins_at) }}</p>
    <p class="what">
      <b>{{ stepName(next.kind) }}, {{ piece.typed.letter }}.</b> {{ detail }}
    </p>
    <v-btn class="on-dark" @click="$emit('done')">Done</v-btn>
  </section>
</template>

<style scoped>
.next {
  display: grid;
  grid-template-columns: auto minmax(0, 1fr) auto;
  align-items: center;
  gap: var(--s-24);
  padding: var(--s-12) var(--s-24);
}
p {
  margin: 0;
}
.big {
  font-size: var(--t-h1);
  white-space: nowrap;
}
.what {
  font-size: var(--t-xl);
}
@media (max-width: 720px) {
  .next {
    grid-template-columns: 1fr auto;
    gap: var(--s-6) var(--s-12);
    padding: var(--s-14) var(--s-16);
  }
  .what {
    grid-column: 1 / -1;
    grid-row: 2;
  }
}
</style>
