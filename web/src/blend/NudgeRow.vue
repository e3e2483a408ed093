<script setup lang="ts">
import { api, call, type Schemas } from '../api/client'
import { useChange } from '../api/change'
import { say } from '../kit/notice'
import { benchHere } from './useBlend'

/** One tap towards a wish; what it did is said, and can be undone. */
const bench = benchHere()
const wishes: { towards: Schemas['NudgeWhatIf']['towards']; text: string }[] = [
  { towards: 'sweeter', text: 'Sweeter' },
  { towards: 'less-salt', text: 'Less salt' },
  { towards: 'hotter', text: 'Hotter' },
  { towards: 'smokier', text: 'Smokier' },
  { towards: 'herbal', text: 'More herbal' },
]
const nudge = useChange('bench', async (towards: (typeof wishes)[number]['towards']) => {
  const answer = await call(api.POST('/api/blends/nudge', { body: { ...bench.body(), towards } }))
  if (answer.unchanged) say(answer.notes.join(' '))
  else {
    bench.take(answer, answer.reading ?? null)
    const words = answer.difference.words
    const more = words.length > 4 ? ' and more' : ''
    say(`${words.slice(0, 4).join(', ')}${more}`, () => bench.history.undo())
  }
})
const { busy } = nudge
</script>

<template>
  <div class="nudges" role="group" aria-label="Nudge it">
    <button v-for="wish in wishes" :key="wish.towards" type="button" :disabled="busy" @click="nudge(wish.towards)">
      {{ wish.text }}
    </button>
  </div>
</template>

<style scoped>
.nudges {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s-6);
}
button {
  border: 1.5px solid var(--line-strong);
  border-radius: 18px;
  padding: var(--s-4) var(--s-14);
  font-size: var(--t-s);
  min-height: 34px;
}
button:hover {
  background: var(--tint);
}
@media (max-width: 720px) {
  .nudges {
    flex-wrap: nowrap;
    overflow-x: auto;
    padding-bottom: var(--s-2);
  }
  button {
    flex: none;
    min-height: 44px;
  }
}
</style>
