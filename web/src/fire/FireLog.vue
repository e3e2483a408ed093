<script setup lang="ts">
import { computed, ref } from 'vue'
import { usePreferences } from '../app/preferences'
import When from '../kit/When.vue'
import { time } from '../kit/units'
import { read } from './read'
import { useThisFire, type Noted } from './useFire'

/** The log: what was noted, the newest on top; each can be moved to another time or taken back. */
const { fire, waiting, takeBack, moveTo } = useThisFire()
const { preferences, show } = usePreferences()
const SHOWN = 14
const all = ref(false)
const moved = ref<string | null>(null)
const events = computed(() => [...(fire.value?.events ?? [])].reverse())
const shown = computed(() => (all.value ? events.value : events.value.slice(0, SHOWN)))
const kinds = computed(() => new Map((fire.value?.kinds ?? []).map((kind) => [kind.key, kind.button])))
function says(one: Noted): string {
  const parts = [one.says, one.word && one.what !== 'read' ? one.word : '', one.what === 'read' ? one.word : '']
  if (one.celsius !== null) parts.push(read(one.celsius, preferences.value.temperature))
  if (one.grams !== null) parts.push(show.value.mass(one.grams))
  if (one.count !== null) parts.push(String(one.count))
  if (one.note) parts.push(one.note)
  return `${one.letter ? `${one.letter} ` : ''}${parts.filter(Boolean).join(' ')}`
}
async function keep(one: Noted, at: string) {
  moved.value = null
  if (at && Date.parse(at) !== Date.parse(one.at)) await moveTo(one, at)
}
</script>

<template>
  <section class="plate log" aria-label="The log">
    <h2>The log</h2>
    <ul v-if="waiting.length" class="rows waits">
      <li v-for="one in waiting" :key="one.key">
        <span
          ><b>{{ time(one.at) }}</b> {{ one.letter }} {{ kinds.get(one.what) ?? one.what }} {{ one.word }}</span
        >
        <small class="muted">not sent yet</small>
      </li>
    </ul>
    <ul class="rows">
      <li v-for="one in shown" :key="one.key">
        <span>
          <b>{{ time(one.at) }}</b> {{ says(one) }}
          <a v-if="one.photo" class="link" :href="`/api/fire/photos/${one.key}`" target="_blank">look at it</a>
        </span>
        <span class="acts">
          <button
            type="button"
            class="link"
            :aria-label="`Move: ${says(one)}`"
            @click="moved = moved === one.key ? null : one.key"
          >
            Move
          </button>
          <button type="button" class="link" :aria-label="`Take back: ${says(one)}`" @click="takeBack(one.key)">
            Take back
          </button>
        </span>
        <When
          v-if="moved === one.key"
          :model-value="one.at"
          label="It was at"
          @update:model-value="keep(one, $event)"
        />
      </li>
    </ul>
    <p v-if="!events.length" class="muted">Nothing was noted yet.</p>
    <button v-if="events.length > SHOWN" type="button" class="link" @click="all = !all">
      {{ all ? 'Only the newest' : `All ${events.length}` }}
    </button>
  </section>
</template>

<style scoped>
.log {
  padding: var(--s-14) var(--s-20);
  font-size: var(--t-s);
}
.acts {
  display: flex;
  gap: var(--s-10);
}
.waits {
  opacity: 0.8;
}
p {
  margin: var(--s-8) 0 0;
}
</style>
