<script setup lang="ts">
import { computed } from 'vue'
import type { Filled } from './card'
import RightRow from './RightRow.vue'
import { isRight } from './scales'
import ScoreRow from './ScoreRow.vue'
import type { Table } from './useTable'
import WordPick from './WordPick.vue'

/** What is asked of one plate: first how much it is liked where that decides, then the scales, then words. */
const props = defineProps<{ table: Table; code: string }>()
const card = defineModel<Filled>({ required: true })
const OVERALL = { name: 'overall', low: 1, high: 9 }
const scales = computed(() => {
  const others = props.table.scales.filter((scale) => scale.name !== 'overall')
  const asked = props.table.kind === 'scores' || others.length < props.table.scales.length
  return asked ? [OVERALL, ...others] : others
})
const key = (scale: string) => `${props.code}|${scale}`
function set(scale: string, value: number | undefined) {
  if (value === undefined) delete card.value.scores[key(scale)]
  else card.value.scores[key(scale)] = value
}
</script>

<template>
  <div class="questions">
    <template v-for="scale in scales" :key="scale.name">
      <RightRow
        v-if="isRight(scale.name)"
        :scale="scale.name"
        :code="code"
        :model-value="card.scores[key(scale.name)]"
        @update:model-value="set(scale.name, $event)"
      />
      <ScoreRow
        v-else
        :scale="scale"
        :code="code"
        :decides="scale.name === 'overall' && table.kind === 'scores'"
        :model-value="card.scores[key(scale.name)]"
        @update:model-value="set(scale.name, $event)"
      />
    </template>
    <WordPick
      :words="table.words"
      :code="code"
      :model-value="card.words[code] ?? []"
      @update:model-value="card.words[code] = $event"
    />
  </div>
</template>

<style scoped>
.questions {
  display: grid;
  gap: var(--s-16);
}
</style>
