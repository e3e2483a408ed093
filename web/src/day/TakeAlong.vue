<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, call, sentenceOf } from '../api/client'
import { refresh } from '../api/kept'
import { say } from '../kit/notice'
import { zone, type Day } from './useDay'

/** The day taken along: a page to print, a calendar file, its address, Markdown. */
const props = defineProps<{ day: Day }>()
const queries = useQueryClient()
const file = (kind: string) => `/api/cooks/${props.day.id}/sheet/${kind}?zone=${encodeURIComponent(zone)}`
const params = computed(() => ({ path: { cook_id: props.day.id }, query: { zone } }))
const { data: calendar } = useQuery({
  queryKey: computed(() => ['day', props.day.id, 'calendar', props.day.calendar]),
  queryFn: () => call(api.GET('/api/cooks/{cook_id}/calendar', { params: params.value })),
})
async function share(shared: boolean) {
  try {
    const body = { version: props.day.version, shared }
    await call(api.POST('/api/cooks/{cook_id}/calendar', { params: params.value, body }))
    if (!shared) say('The address is gone for good; who had it reads nothing any more.')
  } catch (failure) {
    say(sentenceOf(failure))
  }
  await refresh(queries, ['day'])
}
</script>

<template>
  <section class="plate along" aria-label="Take it along">
    <h2>Take it along</h2>
    <ul>
      <li><router-link class="link" :to="`/day/${day.id}/sheet`">The day on one page, to print</router-link></li>
      <li><a class="link" :href="file('calendar')" download>Calendar file with alarms</a></li>
      <li><a class="link" :href="file('markdown')" download>As Markdown</a></li>
    </ul>
    <template v-if="calendar?.address">
      <p>
        Calendars read it at <code>{{ calendar.address }}</code>
      </p>
      <p class="muted">{{ calendar.says }}</p>
      <v-btn class="quiet" @click="share(false)">Take the address back</v-btn>
    </template>
    <v-btn v-else class="quiet" @click="share(true)">Give it a calendar address</v-btn>
  </section>
</template>

<style scoped>
.along {
  padding: var(--s-16) var(--s-20);
}
ul {
  padding: 0;
  list-style: none;
  margin: var(--s-6) 0 var(--s-8);
  display: grid;
  gap: var(--s-6);
}
p {
  margin: var(--s-4) 0;
  font-size: var(--t-s);
}
code {
  overflow-wrap: anywhere;
  font-size: var(--t-xs);
}
</style>
