<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../api/client'
import { usePreferences } from '../app/preferences'
import { duration } from '../kit/units'
import { heatHere, type Phase } from './useHeat'

/** One phase in a line: where it is and until when, what it comes to, and what of the coat burns in it. */
const props = defineProps<{
  phase: Phase
  at: number
  reading: Schemas['PhaseReading'] | null
  open: boolean
  wrong?: string
}>()
defineEmits<{ toggle: [] }>()
const { show } = usePreferences()
const { around, known } = heatHere()
const title = computed(() => {
  const says = around.value.get(props.phase.surround)?.says ?? props.phase.surround
  const vessel = props.phase.vessel && known.value?.vessels[props.phase.vessel]
  const plain = ['grate', 'rack', 'bag', 'board'].includes(props.phase.vessel ?? '')
  return [says, props.phase.aimed, plain ? '' : vessel].filter(Boolean).join(', ')
})
const ends = computed(() => {
  const { lasts, centre, feel, colour, sears, turned } = props.phase
  const until = [
    sears ? `each face: ${sears}` : '',
    lasts ?? '',
    centre ? `to ${centre} in the centre` : '',
    feel ? `until it is ${feel}` : '',
    colour ? `until it is ${colour}` : '',
  ].filter(Boolean)
  return [until.join(' or '), turned ? `turned every ${turned}` : ''].filter(Boolean).join(', ')
})
const took = computed(() => {
  const read = props.reading
  if (!read || read.open) return ''
  const from = duration(read.begins_s)
  return `${read.begins_s < 30 ? 'from the start' : `after ${from}`}, for ${duration(read.ends_s - read.begins_s)}: centre ${show.value.temperature(read.centre_c)}, surface up to ${show.value.temperature(read.surface_c)}`
})
const short = (seconds: number) => (seconds < 90 ? `${Math.round(seconds / 5) * 5} s` : duration(seconds))
/** What of the coat turns bitter, the worst first. */
const burns = computed(() => {
  const found = props.reading?.scorched ?? []
  const worst = found[0]
  if (!worst) return ''
  const said = found.slice(0, 3).map((one) => one.name.toLowerCase() + (one.on_iron ? ', coarse on the iron' : ''))
  const more = found.length > 3 ? ` and ${found.length - 3} more` : ''
  return `Turns bitter here: ${said.join('; ')}${more}. The first is ${short(worst.lasts_s)} above ${show.value.temperature(worst.scorch_c)}.`
})
</script>

<template>
  <button type="button" class="phase" :class="{ wrong }" :aria-expanded="open" @click="$emit('toggle')">
    <i class="number" aria-hidden="true">{{ at + 1 }}</i>
    <span class="what">
      <b>{{ title }}</b>
      <span>{{ ends }}</span>
      <span v-if="wrong" class="says">{{ wrong }}</span>
      <span v-else class="muted">{{ took }}</span>
      <span v-if="burns" class="burns">{{ burns }}</span>
    </span>
  </button>
</template>

<style scoped>
.phase {
  display: grid;
  grid-template-columns: 26px minmax(0, 1fr);
  gap: var(--s-10);
  text-align: left;
  width: 100%;
  padding: var(--s-10) 0;
  line-height: 1.35;
  align-items: start;
}
.phase:hover b {
  text-decoration: underline;
  text-decoration-color: var(--line-strong);
}
.number {
  font-style: normal;
  font-weight: 700;
  width: 26px;
  height: 26px;
  border-radius: 50%;
  display: grid;
  place-items: center;
  background: var(--cobalt);
  color: var(--on-cobalt);
  font-size: var(--t-s);
}
.what,
.what b,
.what span {
  display: block;
}
.what span {
  font-size: var(--t-s);
}
.what .burns {
  color: var(--caution);
}
.wrong {
  box-shadow: inset 3px 0 0 var(--stop);
  padding-left: var(--s-8);
}
</style>
