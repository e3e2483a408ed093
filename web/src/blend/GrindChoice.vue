<script setup lang="ts">
import { api, call, type Schemas } from '../api/client'
import { useQuestion } from '../api/question'
import { percent } from '../kit/units'
import { benchHere } from './useBlend'
import { sure } from '../kit/sure'

/** Another grind or crystal: the same spoons or the same grams? Each way with what it does to the salt. */
const bench = benchHere()
const props = defineProps<{ at: number; swap: Schemas['SwapOut'] }>()
const emit = defineEmits<{ hold: [as: 'spoons' | 'grams']; put: []; leave: [] }>()

type Way = { hold: 'spoons' | 'grams'; parts: string; salt: number }
const { answer: ways, says: failed, ask } = useQuestion<Way[]>()
void ask((signal) =>
  Promise.all(
    (['spoons', 'grams'] as const).map(async (hold) => {
      const change = { do: 'grind', line: props.at, grind: props.swap.line.grind, hold } as const
      const body = { ...bench.body(), ...change } as Schemas['Rework']
      const answer = await call(api.POST('/api/blends/rework', { body, signal }))
      const line = sure(answer.lines[props.at])
      return { hold, parts: `${line.parts} by ${line.basis}`, salt: answer.reading?.salt.value ?? 0 }
    }),
  ),
)
</script>

<template>
  <section class="choice" role="group" :aria-label="`${swap.name}: same spoons or same grams?`">
    <h3>{{ swap.name }}: same spoons or same grams?</h3>
    <p v-if="failed" class="muted">{{ failed }}</p>
    <div class="ways">
      <button v-for="way in ways" :key="way.hold" type="button" @click="emit('hold', way.hold)">
        <b>Same {{ way.hold }}</b>
        <span>{{ way.parts }}</span>
        <span>salt {{ percent(swap.salt_before) }} → {{ percent(way.salt) }}</span>
      </button>
      <button v-if="swap.kind === 'crystal'" type="button" @click="emit('put')">
        <b>Same salt</b>
        <span>{{ swap.line.parts }} by {{ swap.line.basis }}</span>
        <span>salt {{ percent(swap.salt_before) }} → {{ percent(swap.salt_after) }}</span>
      </button>
    </div>
    <v-btn class="quiet" @click="emit('leave')">Leave it</v-btn>
  </section>
</template>

<style scoped>
h3 {
  font-size: var(--t-m);
  margin: var(--s-12) 0 var(--s-8);
}
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s-10);
}
.ways button {
  display: grid;
  text-align: left;
  background: var(--plate);
  border: 1.5px solid var(--rim);
  border-radius: 12px;
  padding: var(--s-10) var(--s-14);
  font-size: var(--t-s);
  min-width: 150px;
}
.ways b {
  font-size: var(--t-m);
}
p {
  margin: 0;
}
</style>
