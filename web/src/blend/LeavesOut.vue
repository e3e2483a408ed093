<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, call } from '../api/client'

/** Whom of those who eat here a blend leaves out, as it is saved. */
const props = defineProps<{ id: string; version: number }>()
const { data: found } = useQuery({
  queryKey: computed(() => ['left out', props.id, props.version]),
  queryFn: () => call(api.GET('/api/blends/{blend_id}/left-out', { params: { path: { blend_id: props.id } } })),
})
const out = computed(() => (found.value ?? []).filter((one) => one.why.length))
const asked = computed(() => (found.value ?? []).filter((one) => one.asked.length))
</script>

<template>
  <p v-if="out.length" class="says">
    <b>Leaves out</b>
    <template v-for="(one, n) in out" :key="one.nickname"
      >{{ n ? '; ' : ' ' }}{{ one.nickname }} ({{ one.why.join(', ') }})</template
    >.
  </p>
  <p v-if="asked.length" class="says muted">
    No table says whether it holds
    <template v-for="(one, n) in asked" :key="one.nickname"
      >{{ n ? '; ' : '' }}{{ one.asked.join(' or ') }}, for {{ one.nickname }}</template
    >: look yourself.
  </p>
</template>

<style scoped>
.says {
  margin: var(--s-10) var(--s-6) 0;
  font-size: var(--t-s);
}
</style>
