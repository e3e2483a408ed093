<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { api, call } from '../api/client'
import { ranked, rankOf } from '../kit/rank'
import { stations } from './stations'

const open = defineModel<boolean>({ required: true })
const router = useRouter()
const typed = ref('')
watch(open, () => (typed.value = ''))
const { data: blends } = useQuery({ queryKey: ['blends'], queryFn: () => call(api.GET('/api/blends')), enabled: open })
const { data: cooks } = useQuery({ queryKey: ['cooks'], queryFn: () => call(api.GET('/api/cooks')), enabled: open })

const all = computed(() => [
  { name: 'Home', what: 'the cook in hand', to: '/' },
  ...stations.map((station) => ({ name: station.name, what: 'station', to: station.path })),
  ...(blends.value ?? []).map((blend) => ({ name: blend.name, what: blend.kind, to: `/blend/${blend.id}` })),
  ...(cooks.value ?? []).map((cook) =>
    cook.trial
      ? { name: cook.name, what: 'cook, verdict', to: `/verdict/${cook.trial.id}` }
      : { name: cook.name, what: 'cook', to: `/coat/${cook.id}` },
  ),
])
const words = (item: { name: string; what: string }) => `${item.name} ${item.what}`
const found = computed(() => {
  return ranked(all.value, words, typed.value).slice(0, 9)
})

/** Enter takes what surely is meant: never what only holds the letters somewhere inside a word. */
function enter() {
  const [first] = found.value
  if (first && rankOf(words(first), typed.value) < 2) go(first.to)
}
function go(to?: string) {
  if (!to) return
  open.value = false
  void router.push(to)
}
</script>

<template>
  <v-dialog v-model="open" max-width="480" aria-label="Find">
    <section class="plate finder">
      <label for="finder" class="sr-only">Find anything</label>
      <v-text-field
        id="finder"
        v-model="typed"
        autofocus
        autocomplete="off"
        placeholder="Find a blend, a cook, a station"
        @keydown.enter="enter"
      />
      <ul>
        <li v-for="item in found" :key="item.to + item.name">
          <button type="button" @click="go(item.to)">
            <b>{{ item.name }}</b> <span>{{ item.what }}</span>
          </button>
        </li>
        <li v-if="!found.length" class="none">Nothing in the book is called that.</li>
      </ul>
    </section>
  </v-dialog>
</template>

<style scoped>
.finder {
  padding: var(--s-16);
}
ul {
  list-style: none;
  margin: var(--s-10) 0 0;
  padding: 0;
}
li button {
  width: 100%;
  text-align: left;
  padding: var(--s-10);
  border-radius: 10px;
  min-height: 44px;
}
li button:hover,
li button:focus-visible {
  background: var(--tint);
}
span,
.none {
  color: var(--muted);
}
.none {
  padding: var(--s-10);
}
</style>
