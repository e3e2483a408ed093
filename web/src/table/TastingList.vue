<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, call } from '../api/client'
import { shortDay } from '../kit/units'

/** The other tastings of the book, to go to. */
const props = defineProps<{ to: 'table' | 'verdict'; current?: string }>()
const { data: cooks } = useQuery({ queryKey: ['cooks'], queryFn: () => call(api.GET('/api/cooks')) })
const tastings = computed(() =>
  (cooks.value ?? []).flatMap((cook) => (cook.trial ? [{ ...cook, trial: cook.trial }] : [])),
)
const FEW = 6
const all = ref(false)
const shown = computed(() => (all.value ? tastings.value : tastings.value.filter((cook, at) => at < FEW || cook.trial.id === props.current))) // prettier-ignore
const cards = (count: number) => (count ? `${count} ${count === 1 ? 'card' : 'cards'}` : 'no card yet')
</script>

<template>
  <section v-if="tastings.length > 1" class="tastings">
    <h2>Tastings</h2>
    <ul>
      <li v-for="cook in shown" :key="cook.id">
        <router-link
          :to="`/${props.to}/${cook.trial.id}`"
          :aria-current="cook.trial.id === current ? 'page' : undefined"
        >
          <b>{{ cook.name }}</b>
          <span class="muted">{{ shortDay(cook.serve_at) }}, {{ cards(cook.trial.cards) }}</span>
        </router-link>
      </li>
    </ul>
    <button v-if="!all && shown.length < tastings.length" type="button" class="link" @click="all = true">
      All {{ tastings.length }}
    </button>
  </section>
</template>

<style scoped>
ul {
  list-style: none;
  padding: 0;
  margin: var(--s-8) 0 0;
}
a {
  display: grid;
  padding: var(--s-8) var(--s-12);
  margin: 0 -12px;
  border-radius: 12px;
  border: 1.5px solid transparent;
  min-height: var(--tap);
}
a[aria-current] {
  background: var(--plate);
  border-color: var(--rim);
}
span {
  font-size: var(--t-s);
}
</style>
