<script setup lang="ts">
import { computed } from 'vue'
import Choice from '../kit/Choice.vue'
import Select from '../kit/Select.vue'
import { useThisFire } from './useFire'

/** What is said of the grate: where the embers lie, which face is down, the weather. */
const { fire, embers, tapAndSay } = useThisFire()
const pieces = computed(() => (fire.value?.reading?.pieces ?? []).filter((piece) => piece.state === 'on'))
const shapes = computed(() => new Map((fire.value?.pieces ?? []).map((piece) => [piece.letter, piece])))
const beds = computed(() => fire.value?.kinds.find((kind) => kind.key === 'embers')?.words ?? [])
const where = computed({
  get: () => embers.value,
  set: (word) => void tapAndSay(`Embers ${word}`, 'embers', { word: word ?? '' }),
})
/** Which face is down, of what has faces that can be told apart. */
const told = computed(() =>
  pieces.value.flatMap((piece) => {
    const faces = shapes.value.get(piece.letter)?.faces ?? []
    const [face = '', way = ''] = [piece.side.replace(/ (up|down)$/, ''), piece.side.split(' ').at(-1) ?? '']
    return faces.length > 1 ? [{ letter: piece.letter, faces, down: way === 'down' ? face : '', says: piece.side }] : []
  }),
)
const lies = (letter: string, side: string | null | undefined) =>
  side && tapAndSay(`${letter} lies ${side} down`, 'move', { letter, side })
const WEATHER = ['still', 'windy', 'gusts', 'rain', 'cold', 'sun']
const weather = computed({
  get: () => (fire.value?.events ?? []).filter((one) => one.what === 'weather').at(-1)?.word ?? '',
  set: (word: string) => void tapAndSay(`Weather: ${word}`, 'weather', { word }),
})
</script>

<template>
  <div class="said">
    <Select
      v-model="where"
      label="Embers"
      placeholder="not said"
      :options="beds.map((value) => ({ value, title: value }))"
    />
    <Select
      v-for="one in told"
      :key="one.letter"
      :model-value="one.down"
      :label="`Down, of ${one.letter}`"
      placeholder="not said"
      :options="one.faces.map((value) => ({ value, title: value }))"
      @update:model-value="lies(one.letter, $event)"
    />
  </div>
  <Choice v-model="weather" label="Weather" :options="WEATHER.map((value) => ({ value, text: value }))" />
</template>

<style scoped>
.said {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(140px, 1fr));
  gap: var(--s-8);
  margin-bottom: var(--s-8);
}
</style>
