<script setup lang="ts">
import { stations } from './stations'

const open = defineModel<boolean>({ required: true })
const more = [
  ['/', 'find a blend, a cook or a station'],
  ['?', 'this list'],
  ['0', 'home, the cook in hand'],
  ['↑ ↓', 'in a part: nudge it by a sensible step'],
  ['Alt+↑ ↓', 'in a part: move its line'],
  ['Enter', 'in a part: on to a new line'],
  ['Ctrl+Z', 'undo the last edit'],
  ['Ctrl+Shift+Z', 'redo it'],
]
</script>

<template>
  <v-dialog v-model="open" max-width="420" aria-label="Keys">
    <section class="plate keys">
      <h2>Keys</h2>
      <dl>
        <template v-for="(station, at) in stations" :key="station.key">
          <dt>{{ at + 1 }}</dt>
          <dd>{{ station.name }}</dd>
        </template>
        <template v-for="[key, what] in more" :key="key">
          <dt>{{ key }}</dt>
          <dd>{{ what }}</dd>
        </template>
      </dl>
      <p>Single keys can be switched off under “Units, theme”.</p>
      <v-btn class="solid" @click="open = false">Close</v-btn>
    </section>
  </v-dialog>
</template>

<style scoped>
.keys {
  padding: var(--s-24) var(--s-24);
  display: grid;
  gap: var(--s-12);
}
dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: var(--s-6) var(--s-16);
  margin: 0;
}
dt {
  font-weight: 700;
}
dd {
  margin: 0;
}
p {
  color: var(--muted);
  font-size: var(--t-s);
  margin: 0;
}
</style>
