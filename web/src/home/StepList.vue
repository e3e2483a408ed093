<script setup lang="ts">
import { mdiCheck } from '@mdi/js'
import { defineAsyncComponent, ref } from 'vue'
import type { Schemas } from '../api/client'
import CautionList from '../kit/CautionList.vue'
import { usePreferences } from '../app/preferences'
import { dayAndTime, duration, time } from '../kit/units'
import Why from '../kit/Why.vue'
import { sure } from '../kit/sure'
import type { timesOf } from './planned'
import { stepDetail, stepName } from './steps'

/** Comes when a length is changed: the page shows its plates without it. */
const Field = defineAsyncComponent(() => import('../kit/Field.vue'))

/** The stored steps of a piece, ticked off for real, at the times that its day plans, else counted back from serving. */
const props = defineProps<{
  piece: Schemas['BoardPieceOut']
  cookId: string
  nextStep?: string
  times: ReturnType<typeof timesOf> | null
}>()
const emit = defineEmits<{ tick: [stepId: string, done: boolean]; length: [stepId: string, lasts: string] }>()
const { show } = usePreferences()

const planned = (step: Schemas['StepOut']) => props.times?.(props.piece.typed.letter, step)
/** How long it is on its fire and rests is its phases', where it has some. */
const untilThen = (step: Schemas['StepOut']) =>
  !step.done_at && !step.settable && ['on', 'rest'].includes(step.kind) && planned(step)
const editing = ref('')
const lasts = ref('')
function edit(step: Schemas['StepOut']) {
  editing.value = step.id
  lasts.value = duration(step.lasts_s)
}
function finish() {
  if (editing.value && lasts.value.trim()) emit('length', editing.value, lasts.value)
  editing.value = ''
}
</script>

<template>
  <ol class="steps">
    <li v-for="step in piece.steps" :key="step.id" :class="{ done: step.done_at, next: step.id === nextStep }">
      <button
        type="button"
        class="tick"
        role="checkbox"
        :aria-checked="!!step.done_at"
        :aria-label="`${stepName(step.kind)}, piece ${piece.typed.letter}`"
        @click="$emit('tick', step.id, !step.done_at)"
      >
        <i><v-icon v-if="step.done_at" :icon="mdiCheck" size="15" /></i>
      </button>
      <div class="what">
        <b>{{ stepName(step.kind) }}</b>
        <span class="muted">
          <template v-if="step.done_at">done {{ dayAndTime(step.done_at) }}</template>
          <router-link v-else-if="planned(step)" :to="`/day/${cookId}`">{{
            dayAndTime(sure(planned(step)).begins_at)
          }}</router-link>
          <Why v-else-if="times" :figure="step.before" :of="`${stepName(step.kind)}, before serving`">{{
            dayAndTime(step.begins_at)
          }}</Why>
          <template v-else>planning</template>
          <template v-if="step.kind === 'plate'"
            ><template v-if="piece.typed.tasted"
              >, <router-link class="link" to="/table?look">its number, for whoever plates</router-link></template
            ></template
          >
          <template v-else-if="editing === step.id">
            <Field
              v-model="lasts"
              class="lasts"
              :label="`How long: ${stepName(step.kind)}, piece ${piece.typed.letter}`"
              hidden-label
              autofocus
              @keydown.enter="finish"
              @keydown.esc="editing = ''"
              @focusout="finish"
            />
          </template>
          <template v-else-if="untilThen(step)">, until {{ time(sure(planned(step)).ends_at) }}</template>
          <template v-else>, {{ stepDetail(step, piece, show) }}</template>
          {{ ' ' }}
          <button
            v-if="step.settable && !step.done_at && editing !== step.id"
            type="button"
            class="link"
            :aria-label="`Change how long: ${stepName(step.kind)}, piece ${piece.typed.letter}`"
            @click="edit(step)"
          >
            change
          </button>
        </span>
        <CautionList
          v-if="piece.reading && step.layer !== null"
          :cautions="piece.reading.cautions"
          :layer="step.layer"
          class="at-step"
        />
      </div>
    </li>
  </ol>
</template>

<style scoped>
.steps {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: 32px 1fr;
  position: relative;
  min-height: 50px;
  padding-bottom: var(--s-6);
}
li:not(:last-child)::before {
  content: '';
  position: absolute;
  left: 10.5px;
  top: 26px;
  bottom: -2px;
  border-left: 2px solid var(--line-strong);
}
.tick {
  width: 24px;
  height: 24px;
  padding: 0;
  display: grid;
  place-items: center;
  border-radius: 50%;
  position: relative;
}
.tick::after {
  content: '';
  position: absolute;
  inset: -10px;
}
i {
  width: 20px;
  height: 20px;
  border-radius: 50%;
  border: 2px solid var(--line-strong);
  background: var(--plate);
  display: grid;
  place-items: center;
}
.next i {
  border: 5px solid var(--cobalt);
}
.done i {
  background: var(--cobalt);
  border-color: var(--cobalt);
  color: var(--on-cobalt);
}
.what {
  line-height: 1.3;
}
.what b {
  display: block;
}
.what span {
  font-size: var(--t-s);
}
.link {
  font-size: var(--t-s);
  padding: 0;
}
.lasts {
  width: 110px;
  min-height: 30px;
  padding: var(--s-2) var(--s-8);
  margin-left: var(--s-6);
}
.at-step {
  padding: var(--s-2) 0 var(--s-4);
}
.who {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: var(--s-4) var(--s-8);
  padding-top: var(--s-4);
}
.who .field {
  flex: 1 1 180px;
}
@media (max-width: 720px) {
  li {
    min-height: 58px;
  }
}
</style>
