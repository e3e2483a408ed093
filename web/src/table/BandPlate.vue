<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed } from 'vue'
import { useChange } from '../api/change'
import { api, call, type Schemas } from '../api/client'
import Select from '../kit/Select.vue'
import { upper } from '../verdict/useQuestion'

/** From how much on a difference matters to this table, chosen before anything of the question is revealed. */
const props = defineProps<{ trial: string }>()
const client = useQueryClient()
const queryKey = computed(() => ['verdicts', 'bands', props.trial])
const { data } = useQuery({
  queryKey,
  queryFn: () => call(api.GET('/api/verdicts/bands/{trial_id}', { params: { path: { trial_id: props.trial } } })),
})
type Band = Schemas['BandOut']
const called = (band: Band) => `${upper(band.names[0] ?? '')} or ${band.names[1]}`
const choose = useChange(
  'band',
  (band: Band, margin: number) =>
    call(api.PUT('/api/verdicts/band', { body: { kind: band.kind, first: band.first, second: band.second, margin } })),
  { after: () => client.invalidateQueries({ queryKey: ['verdicts'] }) },
)
</script>

<template>
  <section v-if="data?.length" class="plate band" aria-labelledby="band">
    <h2 id="band">From how much on it matters</h2>
    <p class="muted">A smaller difference in liking counts as none, over all cooks that ask the same.</p>
    <template v-for="band in data" :key="`${band.first} ${band.second}`">
      <Select
        v-if="band.can_choose"
        :model-value="band.margin"
        :label="called(band)"
        :options="band.choices.map(({ points, says }) => ({ value: points, title: says }))"
        @update:model-value="$event && choose(band, $event)"
      />
      <p v-else>{{ called(band) }}: {{ band.says }}. It was looked at already, so that stays.</p>
    </template>
  </section>
</template>

<style scoped>
.band {
  display: grid;
  gap: var(--s-10);
  padding: var(--s-16) var(--s-20);
}
p {
  margin: 0;
  font-size: var(--t-m);
}
</style>
