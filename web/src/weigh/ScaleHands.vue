<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Scale } from './useScale'

/** The scale's own row: start the simulated one, and what hands do at it. A real one is handled by hand. */
const props = defineProps<{ scale: Scale; resolution: number }>()
const now = props.scale.now
const simulated = computed(() => now.value?.kind === 'simulated' && now.value.state !== 'none')
const none = computed(() => now.value?.state === 'none')
const starting = ref(false)
async function start() {
  starting.value = true
  await props.scale.start(props.resolution < 0.5 ? 0.1 : 1)
  setTimeout(() => (starting.value = false), 3000)
}
const pourings = [
  { says: '+ pinch', grams: 0.3 },
  { says: '+ ½ tsp', grams: 1.5 },
  { says: '+ spoon', grams: 5 },
  { says: '+ scoop', grams: 20 },
  { says: '− bit', grams: -1 },
]
/** A stream runs for as long as the button is held. */
const hold = () => props.scale.handle('pour', 6, 30)
const stop = () => props.scale.handle('pour', 0, 0)
</script>

<template>
  <div class="hands">
    <p v-if="none" class="muted">
      Any scale can be connected that speaks the open interface; to see one at work,
      <button type="button" class="way" :disabled="starting" @click="start">
        {{ starting ? 'starting …' : 'start the simulated scale' }}
      </button>
    </p>
    <template v-else-if="simulated">
      <span class="muted says">Simulated scale:</span>
      <button v-for="one in pourings" :key="one.says" type="button" @click="scale.handle('put', one.grams)">
        {{ one.says }}
      </button>
      <button type="button" @pointerdown="hold" @pointerup="stop" @pointerleave="stop">hold to pour</button>
      <button type="button" @click="scale.handle('clear')">clear the pan</button>
      <button type="button" @click="scale.handle('drop out', 0, 6)">lose its link</button>
      <button type="button" @click="scale.handle('stop')">switch off</button>
    </template>
  </div>
</template>

<style scoped>
.hands {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s-6);
  align-items: center;
}
.hands p {
  margin: 0;
}
.says {
  font-size: var(--t-s);
  margin-right: var(--s-4);
}
.hands button:not(.way) {
  border: 1.5px dashed var(--line-strong);
  border-radius: 12px;
  padding: var(--s-4) var(--s-12);
  min-height: 38px;
  font-size: var(--t-s);
  touch-action: none;
  user-select: none;
}
.hands button:not(.way):active {
  background: var(--tint);
}
.way {
  color: var(--link);
  text-decoration: underline;
  text-underline-offset: 3px;
  padding: var(--s-2) var(--s-4);
}
@media (max-width: 720px) {
  .hands button {
    min-height: 44px;
  }
}
</style>
