<script setup lang="ts">
import { ref } from 'vue'
import AddPhase from './AddPhase.vue'
import PhaseFields from './PhaseFields.vue'
import PhaseRow from './PhaseRow.vue'
import { heatHere } from './useHeat'

/** The phases of a piece in their order: one opens by a tap. */
const heat = heatHere()
const open = ref<number | null>(null)
function toggle(at: number) {
  open.value = open.value === at ? null : at
}
</script>

<template>
  <div class="phases" role="group" aria-label="Phases, in order">
    <ol>
      <li v-for="(phase, at) in heat.phases.value" :key="at">
        <PhaseRow
          :phase="phase"
          :at="at"
          :reading="heat.answer.value?.phases[at] ?? null"
          :open="open === at"
          :wrong="Object.values(heat.errorsOf(at))[0]"
          @toggle="toggle(at)"
        />
        <PhaseFields v-if="open === at" :at="at" @gone="open = null" />
      </li>
    </ol>
    <p v-if="heat.answer.value?.rests" class="muted">{{ heat.answer.value.rests }}</p>
    <AddPhase />
    <v-btn size="small" @click="heat.put([])">Begin from another run</v-btn>
  </div>
</template>

<style scoped>
.phases {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--s-10);
  justify-items: start;
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
  width: 100%;
}
li + li {
  border-top: 1px solid var(--line);
}
p {
  margin: 0;
  font-size: var(--t-s);
}
</style>
