<script setup lang="ts">
import { computed } from 'vue'
import { usePreferences } from '../app/preferences'
import { time } from '../kit/units'
import { useThisFire, type PieceStands } from './useFire'

/** The big answer: when what comes off first does, against the plan, and the next thing to do, ticked by one tap. */
const { fire, now, tapAndSay } = useThisFire()
const { show } = usePreferences()
const reading = computed(() => fire.value?.reading ?? null)
const on = computed(() => (reading.value?.pieces ?? []).filter((piece) => piece.state === 'on'))
const done = (piece: PieceStands) => piece.outlook?.done_at ?? null
const first = computed(
  () =>
    [...on.value]
      .filter(done)
      .sort((a, b) => Date.parse(done(a) ?? '') - Date.parse(done(b) ?? ''))
      .at(0) ?? null,
)
const big = computed(() => {
  const piece = first.value
  if (piece) {
    const at = done(piece) ?? ''
    return Date.parse(at) <= now.value ? `${piece.letter} is done: look at it` : `${piece.letter} off about ${time(at)}`
  }
  if (fire.value?.ended_at) return 'All off'
  if (!on.value.length) return reading.value?.pieces.some((piece) => piece.off_at) ? 'Resting' : 'The fire is lit'
  if (on.value.some((piece) => piece.outlook)) return 'Not done so: the fire is too cool'
  return 'Looking ahead …'
})
const sure = computed(() => {
  const piece = first.value
  const outlook = piece?.outlook
  if (!piece || !outlook?.low_at) return ''
  const planned =
    piece.planned_off_at && outlook.beside_plan ? `${outlook.beside_plan}, ${time(piece.planned_off_at)}` : ''
  // what is done has no chances ahead any more
  if (Date.parse(done(piece) ?? '') <= now.value) return planned && `${planned}.`
  const span = outlook.high_at
    ? `${time(outlook.low_at)} to ${time(outlook.high_at)}, eight times in ten`
    : `${time(outlook.low_at)} at the soonest, with no end in sight for some chances`
  return planned ? `${span}; ${planned}.` : `${span}.`
})
const others = computed(() =>
  on.value
    .filter((piece) => piece !== first.value && done(piece))
    .map((piece) => `${piece.letter} about ${time(done(piece) ?? '')}`),
)
const old = computed(() => on.value.some((piece) => piece.outlook?.old))
const next = computed(() => reading.value?.due[0] ?? null)
const late = computed(() => next.value && Date.parse(next.value.at) < now.value - 90_000)
function tick() {
  const due = next.value
  if (!due) return
  void tapAndSay(`${due.whose ? `${due.whose}: ` : ''}${due.says}`, due.what || 'tick', {
    letter: due.letter,
    step: due.key,
    ...(due.phase ? { phase: due.phase } : {}),
  })
}
</script>

<template>
  <section class="answer lit" aria-label="When it comes off">
    <p class="big" aria-live="polite">{{ big }}</p>
    <div class="words">
      <p v-if="sure">{{ sure }}</p>
      <p v-if="others.length">{{ others.join(', ') }}.</p>
      <p v-if="old" class="old">This forecast is old; a newer one is on its way.</p>
      <p v-for="says in reading?.says ?? []" :key="says">{{ show.sentence(says) }}</p>
      <button v-if="next" type="button" class="next" @click="tick">
        <span class="box" aria-hidden="true" /> Next: {{ next.letter ? `${next.letter}, ` : ''
        }}{{ show.sentence(next.says) }}, {{ late ? 'was due' : 'at' }} {{ time(next.at) }}
      </button>
    </div>
  </section>
</template>

<style scoped>
.lit {
  padding: var(--s-16) var(--s-20);
  display: grid;
  grid-template-columns: minmax(0, auto) minmax(240px, 1fr);
  gap: var(--s-8) var(--s-24);
  align-items: center;
}
p {
  margin: 0;
}
.big {
  font-size: var(--t-big);
  line-height: 1.12;
}
.words {
  display: grid;
  gap: var(--s-4);
  font-size: var(--t-s);
}
.old {
  color: #ffd9a0;
}
.next {
  display: flex;
  gap: var(--s-8);
  align-items: center;
  text-align: left;
  min-height: var(--tap);
  padding: var(--s-4) var(--s-10) !important;
  margin-left: calc(-1 * var(--s-10));
  border-radius: 10px;
  background: var(--tint) !important;
}
.box {
  flex: none;
  width: 18px;
  height: 18px;
  border: 2px solid currentColor;
  border-radius: 4px;
}
@media (max-width: 720px) {
  .lit {
    grid-template-columns: minmax(0, 1fr);
    padding: var(--s-12) var(--s-14);
    gap: var(--s-4);
  }
}
</style>
