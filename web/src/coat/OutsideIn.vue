<script setup lang="ts">
import { computed, ref } from 'vue'
import { within } from '../api/client'
import CautionList from '../kit/CautionList.vue'
import AddLayer from './AddLayer.vue'
import LayerBand from './LayerBand.vue'
import LayerFields from './LayerFields.vue'
import MeatDepth from './MeatDepth.vue'
import { isOld } from './reading'
import { coatHere, type Layer } from './useCoat'
import { useRowDrag } from '../edit/useRowDrag'
import WayChoice from './WayChoice.vue'
import { sure } from '../kit/sure'

/** From the outside in: every layer a band in the order it lies, the last put on at the top, and under them the meat. */
const coat = coatHere()
const piece = computed(() => sure(coat.piece.value))
const errors = computed(() => coat.errorsOf(coat.current.value))
/** The layers as they lie, outermost first, each with its place in the order they are put on. */
const lying = computed(() => piece.value.layers.map((layer, at) => ({ layer, at })).reverse())
const open = ref<number | null>(null)
const adding = ref(false)
const choosing = ref(false)

/** What the reading says of a layer, as long as it is of this kind. */
const of = (at: number) => {
  const found = coat.mine.value?.layers[at]
  return found && found.kind === piece.value.layers[at]?.kind ? found : null
}
const errorsAt = (at: number) => within(errors.value, `layers.${at}.`)
function move(at: number, to: number) {
  const layers = piece.value.layers
  if (to < 0 || to >= layers.length || at === to) return
  coat.history.mark()
  layers.splice(to, 0, ...layers.splice(at, 1))
  if (open.value === at) open.value = to
}
useRowDrag('.grip, .band', (from, to) => {
  const last = piece.value.layers.length - 1
  move(last - from, last - to)
})
function remove(at: number) {
  coat.history.mark()
  piece.value.layers.splice(at, 1)
  open.value = null
}
async function add(what: Parameters<typeof coat.addLayer>[0]) {
  adding.value = false
  const before = [...piece.value.layers]
  if (await coat.addLayer(what)) open.value = piece.value.layers.findIndex((layer) => !before.includes(layer))
}
/** What the book knows of a layer's blend, as far as it was read. */
const mark = (at: number) => (of(at) ? (coat.mine.value?.marks[at] ?? undefined) : undefined)
const name = (layer: Layer, at: number) =>
  mark(at)?.blend_deleted ? `${sure(mark(at)).blend_name} (deleted)` : coat.nameOf(layer)
</script>

<template>
  <section class="plate outside-in" aria-label="Layers, in order">
    <header>
      <h2>From the outside in</h2>
      <p v-if="piece.layers.length" class="heads" aria-hidden="true"><span>dose</span><span>adds</span></p>
    </header>
    <p v-if="!piece.layers.length" class="muted">Nothing is on it yet. Add a layer, or start from one of the ways.</p>
    <ol ref="list">
      <li v-for="{ layer, at } in lying" :key="at">
        <LayerBand
          :layer="layer"
          :name="name(layer, at)"
          :colour="coat.colourOf(layer)"
          :mark="mark(at)"
          :reading="of(at)"
          :at="at"
          :last="at === piece.layers.length - 1"
          :open="open === at"
          :wrong="Object.values(errorsAt(at))[0]"
          :old="isOld(errors, at)"
          @toggle="open = open === at ? null : at"
          @move="move"
        />
        <CautionList v-if="coat.mine.value" :cautions="coat.mine.value.cautions" :layer="at" class="at-step" />
        <LayerFields
          v-if="open === at"
          :at="at"
          :reading="of(at)"
          :mark="mark(at)"
          :errors="errorsAt(at)"
          :target="coat.mine.value?.target ?? null"
          :gives="(coat.mine.value?.gives ?? null) !== null"
          @remove="remove(at)"
          @moved="open = $event"
        />
      </li>
    </ol>
    <p v-if="errors.layers || errors.target" class="says" role="alert">{{ errors.layers || errors.target }}</p>
    <div class="more">
      <v-btn v-if="!adding" @click="adding = true">Add a layer</v-btn>
      <v-btn class="quiet" :aria-expanded="choosing" @click="choosing = !choosing">Ways</v-btn>
    </div>
    <AddLayer
      v-if="adding"
      :blends="coat.blends.value"
      :bath="piece.layers.some((layer) => layer.kind === 'marinade')"
      @add="add"
      @close="adding = false"
    />
    <WayChoice v-if="choosing" @done="choosing = false" />
    <MeatDepth id="depth" />
  </section>
</template>

<style scoped>
.outside-in {
  padding: var(--s-20) var(--s-24);
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--s-10);
  align-content: start;
}
header,
.heads {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  gap: var(--s-24);
}
.heads {
  font-size: var(--t-xs);
  color: var(--muted);
  margin-right: var(--s-32);
}
h2 {
  font-size: var(--t-h3);
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
}
li + li {
  border-top: 1px solid var(--line);
}
.at-step {
  padding: var(--s-4) 0 var(--s-8) 42px;
}
p {
  margin: 0;
  font-size: var(--t-s);
}
.says {
  color: var(--stop);
}
.more {
  display: flex;
  gap: var(--s-10);
  justify-content: flex-end;
}
@media (max-width: 720px) {
  .heads {
    display: none;
  }
  .outside-in {
    padding: var(--s-16) var(--s-14);
  }
  .at-step {
    padding-left: 0;
  }
}
</style>
