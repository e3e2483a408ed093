<script setup lang="ts">
import { computed, provide } from 'vue'
import { usePreferences } from '../app/preferences'
import CautionList from '../kit/CautionList.vue'
import HeatAnswer from './HeatAnswer.vue'
import HeatFacts from './HeatFacts.vue'
import HeatPicture from './HeatPicture.vue'
import PhaseList from './PhaseList.vue'
import StartChoice from './StartChoice.vue'
import { HEAT, useHeat } from './useHeat'

/** On the fire: what a piece goes through there, when it is done, and what that does to the meat. */
const heat = useHeat()
provide(HEAT, heat)
const { answer, phases, old } = heat
const { show } = usePreferences()
const waits = computed(() => {
  if (!phases.value.length) return 'Say how it is cooked, and here is when it is done, and how sure that is.'
  return heat.stopped.value ? 'Mend what is marked, and here is when it is done.' : 'Reckoning …'
})
</script>

<template>
  <section class="plate heat" aria-label="On the fire">
    <header>
      <h2>On the fire</h2>
      <HeatAnswer v-if="answer" :reading="answer" :old="old" />
      <p v-else class="muted">
        {{ waits }}
      </p>
    </header>
    <CautionList v-if="answer" :cautions="answer.cautions" only="stops" />
    <StartChoice v-if="!phases.length" />
    <div v-else class="sides">
      <PhaseList />
      <div v-if="answer" class="done">
        <HeatPicture :reading="answer" :letter="heat.piece.value.letter" />
        <p v-for="says in answer.says" :key="says" class="never" role="status">{{ show.sentence(says) }}</p>
        <HeatFacts :reading="answer" />
        <CautionList :cautions="answer.cautions" only="others" :most="3" />
      </div>
    </div>
  </section>
</template>

<style scoped>
.heat {
  padding: var(--s-16) var(--s-20) var(--s-20);
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--s-14);
}
header {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--s-4) var(--s-20);
}
header p {
  margin: 0;
}
.sides {
  display: grid;
  grid-template-columns: minmax(300px, 400px) minmax(0, 1fr);
  gap: var(--s-24);
  align-items: start;
}
.done {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--s-12);
}
.never {
  margin: 0;
  color: var(--stop);
}
@media (max-width: 860px) {
  .heat {
    padding: var(--s-14);
  }
  .sides {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
