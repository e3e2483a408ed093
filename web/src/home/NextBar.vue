<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../api/client'
import { usePreferences } from '../app/preferences'
import { dayAndTime } from '../kit/units'
import { onBoard } from './planned'
import { stepDetail, stepName } from './steps'

/** The one next thing to do: of the day where it is planned, until then of the board, without its time. */
const props = defineProps<{
  board: Schemas['NextOut'] | null
  planned: Schemas['DayStep'] | undefined
  waits: boolean
  whose: string
  pieces: Schemas['BoardPieceOut'][]
}>()
defineEmits<{ done: [stepId: string | null] }>()
const { show } = usePreferences()

const of = computed(() => {
  if (props.planned) return onBoard(props.pieces, props.planned)
  const piece = props.pieces.find((one) => one.typed.letter === props.board?.letter)
  const step = piece?.steps.find((one) => one.id === props.board?.step_id)
  return piece && step ? { piece, step } : null
})
const begins = computed(() => props.planned?.begins_at ?? (props.waits ? '' : props.board?.begins_at))
const late = computed(() => !!begins.value && new Date(begins.value).getTime() < Date.now())
const detail = computed(() => (of.value ? stepDetail(of.value.step, of.value.piece, show.value) : ''))
</script>

<template>
  <section class="answer next" aria-label="Next thing to do">
    <p class="big">{{ late ? 'Now, was due' : begins ? 'Next,' : 'Next' }} {{ begins ? dayAndTime(begins) : '' }}</p>
    <p v-if="of" class="what">
      <b>{{ stepName(of.step.kind) }}, {{ of.piece.typed.letter }}.</b> {{ detail }}
    </p>
    <p v-else class="what">
      <b>{{ whose }}{{ show.sentence(planned?.says ?? '') }}.</b>
    </p>
    <v-btn class="on-dark" @click="$emit('done', of?.step.id ?? null)">Done</v-btn>
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
