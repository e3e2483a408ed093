<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, call, sentenceOf, type Schemas } from '../api/client'
import { usePreferences } from '../app/preferences'
import { dayAndTime } from '../kit/units'
import { askedUnder } from './asked'
import { zone, type Day } from './useDay'

/** Begun now instead: when supper is by each way, and what that costs. */
const props = defineProps<{ day: Day }>()
const emit = defineEmits<{ take: [way: Schemas['StartNow']] }>()
const { show } = usePreferences()
const open = ref(false)
const queries = useQueryClient()
const key = computed(() => ['day', props.day.id, 'start now', props.day.version])
const { data: ways, error } = useQuery({
  queryKey: key,
  queryFn: ({ signal }) =>
    call(
      api.GET('/api/cooks/{cook_id}/day/start-now', {
        params: { path: { cook_id: props.day.id }, query: { zone, asked: askedUnder(signal) } },
        signal,
      }),
    ),
  enabled: open,
  staleTime: 0,
})
function stop() {
  open.value = false
  void queries.cancelQueries({ queryKey: key.value })
}
function take(way: Schemas['StartNow']) {
  open.value = false
  emit('take', way)
}
</script>

<template>
  <section class="plate start-now" aria-label="Start now instead">
    <h2>Start now instead</h2>
    <template v-if="!open">
      <p class="muted">What can be on the table if you begin this minute, and what the short time costs.</p>
      <v-btn class="quiet" @click="open = true">Look what is left</v-btn>
    </template>
    <p v-else-if="error" role="status">{{ sentenceOf(error) }}</p>
    <p v-else-if="!ways" class="muted" role="status">
      Planning from now on … <button type="button" class="link" @click="stop">Stop</button>
    </p>
    <ul v-else>
      <li v-for="way in ways" :key="way.key">
        <div>
          <b>{{ dayAndTime(way.serve_at) }}</b>
          <span :class="{ late: !way.in_time }">{{ way.in_time ? 'in time' : 'later than you wanted' }}</span>
        </div>
        <p>{{ way.says }}.</p>
        <p v-for="cost in way.costs" :key="cost" class="muted">{{ show.sentence(cost) }}</p>
        <p v-if="way.left" class="muted">{{ way.left }} things still do not fit.</p>
        <v-btn class="solid" @click="take(way)">Begin so</v-btn>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.start-now {
  padding: var(--s-16) var(--s-20);
}
p {
  margin: var(--s-4) 0;
  font-size: var(--t-s);
}
ul {
  list-style: none;
  padding: 0;
  margin: var(--s-8) 0 0;
  display: grid;
  gap: var(--s-14);
}
li {
  border-top: 1px solid var(--line);
  padding-top: var(--s-10);
}
li div {
  display: flex;
  gap: var(--s-10);
  align-items: baseline;
}
.late {
  color: var(--caution);
}
</style>
