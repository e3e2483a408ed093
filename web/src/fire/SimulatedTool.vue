<script setup lang="ts">
import { computed, ref } from 'vue'
import { api, call } from '../api/client'
import Select from '../kit/Select.vue'
import { useThisFire } from './useFire'

/** The simulated thermometer: put to this fire, at 1 to 120 times speed, and taken away again. */
const { fire, id, change } = useThisFire()
const SPEEDS = [1, 5, 20, 60, 120]
const busy = ref(false)
const options = SPEEDS.map((value) => ({ value, title: value === 1 ? 'as fast as life' : `${value} × faster` }))
const speed = computed({
  get: () => (SPEEDS.includes(fire.value?.speed ?? 1) ? (fire.value?.speed ?? 1) : 20),
  set: (to: number | null | undefined) => void put(to ?? 20),
})
async function put(to: number) {
  const of = id.value
  if (!of) return
  busy.value = true
  await change(() =>
    call(
      api.POST('/api/fire/{cook_id}/simulated', {
        params: { path: { cook_id: of } },
        body: { speed: to, steady: false },
      }),
    ),
  )
  busy.value = false
}
async function stop() {
  const of = id.value
  if (!of) return
  await change(() => call(api.POST('/api/fire/{cook_id}/simulated/stop', { params: { path: { cook_id: of } } })))
}
</script>

<template>
  <span class="simulated">
    <template v-if="fire?.simulated">
      <Select v-model="speed" label="Simulated" :options="options" />
      <button type="button" class="link" @click="stop">Take it away</button>
    </template>
    <button v-else type="button" class="link" :disabled="busy" @click="put(20)">Simulated thermometer</button>
  </span>
</template>

<style scoped>
.simulated {
  display: inline-flex;
  gap: var(--s-10);
  align-items: end;
}
.simulated > :deep(*:first-child) {
  min-width: 150px;
}
</style>
