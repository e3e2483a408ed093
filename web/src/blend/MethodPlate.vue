<script setup lang="ts">
import { computed } from 'vue'
import { useRouter } from 'vue-router'
import { api, call, type Schemas } from '../api/client'
import { useChange } from '../api/change'
import { say } from '../kit/notice'
import { usePreferences } from '../app/preferences'
import Why from '../kit/Why.vue'
import MethodStep from './MethodStep.vue'
import { benchHere } from './useBlend'
import { sure } from '../kit/sure'

/** How a blend is made, in steps; what is strained off or simmered down changes what it comes to. */
type StepDoc = Schemas['MethodStepDocument']
const steps = defineModel<StepDoc[]>({ required: true })
const bench = benchHere()
defineProps<{ names: { key: string; name: string }[] }>()
const { show } = usePreferences()
const { reading, errors } = bench

const does: Record<StepDoc['do'], string> = {
  mix: 'Mix in', grind: 'Grind', strain: 'Strain out', simmer: 'Simmer down', rest: 'Rest', note: 'Note',
} // prettier-ignore
const finished = computed(() => {
  const found = reading.value
  return found && Math.abs(found.finished.value - found.batch.value) > 0.05 ? found.finished : null
})

function change(at: number, part: Partial<StepDoc>) {
  steps.value = steps.value.map((step, i) => (i === at ? { ...step, ...part } : step))
}
function add(kind: StepDoc['do']) {
  const by = kind === 'simmer' ? 'by a third' : ''
  const lasts = kind === 'rest' ? '30 min' : ''
  steps.value = [...steps.value, { do: kind, of: [], to: kind === 'grind' ? 'ground' : '', by, lasts, note: '' }]
}
function shift(at: number, by: number) {
  const moved = [...steps.value]
  moved.splice(at + by, 0, ...moved.splice(at, 1))
  steps.value = moved
}
const router = useRouter()
/** Make a blend of what the sieve holds back, as it is in the book. */
const keepSieve = useChange('blends', async () => {
  await bench.autosave.flush()
  const path = { blend_id: sure(bench.stored.value).id }
  const made = await call(api.POST('/api/blends/{blend_id}/sieve', { params: { path } }))
  say(`“${made.name}” is a blend now; put it into the pot or into another.`)
  await router.push(`/blend/${made.id}`)
})
const usual = useChange('blends', async () => {
  steps.value = await call(api.POST('/api/blends/usual-method', { body: bench.body() }))
})
</script>

<template>
  <section class="plate method" aria-label="Method">
    <header>
      <h2>Method</h2>
      <p v-if="finished" class="out" role="status">
        {{ show.mass(reading!.batch.value) }} goes in,
        <Why :figure="finished" of="What comes out"
          ><b>{{ show.mass(finished.value) }}</b></Why
        >
        comes out
      </p>
      <v-btn v-if="!steps.length" @click="usual">Write the usual one</v-btn>
    </header>
    <p v-if="!steps.length" class="muted">
      No steps yet: all lines are mixed as they stand. What is strained off or simmered down counts in every number.
    </p>
    <ol v-else>
      <MethodStep
        v-for="(step, at) in steps"
        :key="at"
        :step="step"
        :at="at"
        :last="at === steps.length - 1"
        :names="names"
        :left="reading?.after_g[at] ?? null"
        :errors="errors"
        @change="change(at, $event)"
        @shift="shift(at, $event)"
        @remove="steps = steps.filter((_, i) => i !== at)"
      />
    </ol>
    <p v-if="reading && reading.held_g > 0.5" class="muted sieve">
      The sieve holds back {{ show.mass(reading.held_g) }}, about
      {{ Number(reading.held_salt_percent.toPrecision(1)) }} % of it salt.
      <button type="button" class="link" @click="keepSieve">Make a blend of it</button>
    </p>
    <div class="add">
      <button v-for="(says, kind) in does" :key="kind" type="button" @click="add(kind)">+ {{ says }}</button>
    </div>
  </section>
</template>

<style scoped>
.method {
  padding: var(--s-16) var(--s-20);
  margin-top: var(--s-14);
}
header {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s-6) var(--s-16);
}
header p {
  margin: 0;
}
.out {
  margin-left: auto;
}
p.muted {
  font-size: var(--t-s);
  margin: var(--s-6) 0 0;
}
ol {
  list-style: none;
  margin: var(--s-8) 0 0;
  padding: 0;
}
.add {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s-6);
  margin-top: var(--s-10);
}
.add button {
  border: 1.5px dashed var(--line-strong);
  border-radius: 12px;
  padding: var(--s-4) var(--s-12);
  font-size: var(--t-s);
  min-height: 34px;
}
@media (max-width: 720px) {
  .add button {
    min-height: 44px;
  }
}
</style>
