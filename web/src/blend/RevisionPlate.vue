<script setup lang="ts">
import { computed, watch } from 'vue'
import { api, call, type Schemas } from '../api/client'
import { useQuestion } from '../api/question'
import { useCatalogue } from '../api/catalogue'
import type { Band } from '../draw/grains'
import { longDay } from '../kit/units'
import { bandsOfShares } from './bands'
import type { Node } from './tree'
import TwoStrips from './TwoStrips.vue'
import { benchHere } from './useBlend'

/** An earlier revision, or one of a branch, against the blend at hand: two strips, the difference in words. */
const bench = benchHere()
const props = defineProps<{ id: string; node: Node; now: Band[] }>()
const emit = defineEmits<{ back: []; leave: [] }>()
const { grinds } = useCatalogue()

const { answer: found, says: failed, ask } = useQuestion<Schemas['CompareOut']>()
watch(
  () => [props.node.id, bench.reading.value] as const,
  ([against]) => {
    const body = { ...bench.body(), against }
    void ask((signal) => call(api.POST('/api/blends/compare', { body, signal })))
  },
  { immediate: true },
)
const own = computed(() => props.node.blend_id === props.id)
const title = computed(() => `${own.value ? 'Revision' : props.node.blend_name + ','} ${props.node.number}`)
const then = computed(() => bandsOfShares(props.node.bands, grinds.value))
const moved = computed(() => (found.value?.difference.rows ?? []).filter((row) => row.before !== row.after))
const share = (value?: number | null) => (value == null ? '–' : `${value.toFixed(1)} %`)
</script>

<template>
  <section class="revision plate" :aria-label="title">
    <header>
      <div>
        <h2>{{ title }}</h2>
        <p class="muted">
          <template v-if="node.note">“{{ node.note }}”, </template>kept {{ longDay(node.kept_at ?? '') }}
        </p>
      </div>
      <span class="tools">
        <router-link v-if="!own" :to="`/blend/${node.blend_id}`" class="v-btn link">Open it</router-link>
        <v-btn v-if="found && !found.same" class="solid" @click="emit('back')">Go on from here</v-btn>
        <v-btn class="quiet" @click="emit('leave')">Close</v-btn>
      </span>
    </header>
    <p v-if="failed" class="muted">{{ failed }}</p>
    <TwoStrips
      :strips="[
        { word: 'then', label: title, bands: then, height: 34 },
        { word: 'now', label: 'Now', bands: now, height: 34 },
      ]"
    />
    <p v-if="found" class="words" role="status">
      {{
        found.same ? 'The blend at hand is the same.' : found.difference.words.join(', ') || 'Hardly any difference.'
      }}
    </p>
    <p v-if="node.corrected" class="muted">
      It stands as it was read when it was kept. Corrected in the tables since: {{ node.corrected.tables.join('; ') }}.
      By them: {{ node.corrected.words }}.
    </p>
    <ul v-if="moved.length">
      <li v-for="row in moved" :key="row.name">
        <span>{{ row.name }}</span> <span>{{ share(row.before) }}</span> <span>→</span> <b>{{ share(row.after) }}</b>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.revision {
  padding: var(--s-16) var(--s-24);
  margin-top: var(--s-14);
  display: grid;
  gap: var(--s-10);
}
header {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: start;
  gap: var(--s-6) var(--s-14);
}
p {
  margin: 0;
}
.tools {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s-8);
}
.link {
  display: inline-flex;
  align-items: center;
  padding: 0 var(--s-16);
}
.words {
  font-weight: 600;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  font-size: var(--t-s);
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(290px, 1fr));
  gap: 0 var(--s-32);
}
li {
  display: grid;
  grid-template-columns: 1fr 62px 16px 62px;
  gap: var(--s-4);
  text-align: right;
  border-top: 1px solid var(--line);
  padding: var(--s-4) 0;
}
li > :first-child {
  text-align: left;
}
</style>
