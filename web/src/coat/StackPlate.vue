<script setup lang="ts">
import { computed, ref } from 'vue'
import { within, type Schemas } from '../api/client'
import { useCatalogue } from '../ui/catalogue'
import AddLayer from './AddLayer.vue'
import { layerColour, layerName } from './layers'
import CautionList from '../ui/CautionList.vue'
import LayerFields from './LayerFields.vue'
import LayerRow from './LayerRow.vue'
import { isOld } from './reading'
import WayChoice from './WayChoice.vue'
import type { Coat } from './useCoat'

/** The layers in the order they go on: dragged or moved by keys, opened one at a time. */
const props = defineProps<{ coat: Coat; blends: Schemas['BlendRow'][] }>()
const { grinds } = useCatalogue()
const piece = computed(() => props.coat.piece.value!)
const reading = computed(() => props.coat.reading.value?.[props.coat.current.value] ?? null)
const errors = computed(() => props.coat.errorsOf(props.coat.current.value))
const open = ref<number | null>(null)
const adding = ref(false)
const choosing = ref(false)

/** What the reading says of a layer, as long as it is of this kind. */
const of = (at: number) => {
  const found = reading.value?.layers[at]
  return found && found.kind === piece.value.layers[at]?.kind ? found : null
}
const errorsAt = (at: number) => within(errors.value, `layers.${at}.`)
function move(at: number, to: number) {
  const layers = piece.value.layers
  if (to < 0 || to >= layers.length || at === to) return
  props.coat.history.mark()
  layers.splice(to, 0, ...layers.splice(at, 1))
  if (open.value === at) open.value = to
}
function remove(at: number) {
  props.coat.history.mark()
  piece.value.layers.splice(at, 1)
  open.value = null
}
async function add(what: Parameters<Coat['addLayer']>[0]) {
  adding.value = false
  const before = [...piece.value.layers]
  if (await props.coat.addLayer(what)) open.value = piece.value.layers.findIndex((layer) => !before.includes(layer))
}
/** What the book knows of a layer's blend, as far as it was read. */
const mark = (at: number) => (of(at) ? (reading.value?.marks[at] ?? undefined) : undefined)
const name = (at: number) =>
  mark(at)?.blend_deleted
    ? `${mark(at)!.blend_name} (deleted)`
    : layerName(piece.value.layers[at], props.blends, grinds.value)
</script>

<template>
  <section class="stack" aria-label="Layers, in order">
    <header>
      <h2>Layers, in order</h2>
      <v-btn class="quiet" :aria-expanded="choosing" @click="choosing = !choosing">Ways</v-btn>
    </header>
    <WayChoice v-if="choosing" :coat="coat" @done="choosing = false" />
    <p v-if="!piece.layers.length" class="muted">Nothing is on it yet. Add a layer, or start from one of the ways.</p>
    <ol>
      <li v-for="(layer, at) in piece.layers" :key="at">
        <LayerRow
          :layer="layer"
          :name="name(at)"
          :colour="layerColour(layer, blends, grinds)"
          :reading="of(at)"
          :at="at"
          :last="at === piece.layers.length - 1"
          :open="open === at"
          :wrong="Object.values(errorsAt(at))[0]"
          :old="isOld(errors, at)"
          @toggle="open = open === at ? null : at"
          @move="move"
        />
        <CautionList v-if="reading" :cautions="reading.cautions" :layer="at" class="at-step" />
        <LayerFields
          v-if="open === at"
          v-model="piece.layers[at]"
          :coat="coat"
          :at="at"
          :reading="of(at)"
          :mark="mark(at)"
          :blends="blends"
          :errors="errorsAt(at)"
          :target="reading?.target ?? null"
          :gives="(reading?.gives ?? null) !== null"
          @remove="remove(at)"
        />
      </li>
    </ol>
    <p v-if="errors.layers || errors.target" class="says" role="alert">{{ errors.layers || errors.target }}</p>
    <v-btn v-if="!adding" class="add" @click="adding = true">Add a layer</v-btn>
    <AddLayer v-else :blends="blends" @add="add" @close="adding = false" />
  </section>
</template>

<style scoped>
.at-step {
  padding: 4px 14px 8px;
}
.stack {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 10px;
  align-content: start;
}
header {
  display: flex;
  justify-content: space-between;
  align-items: center;
}
h2 {
  font-size: 20px;
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 8px;
}
p {
  margin: 0;
  font-size: 14px;
}
.says {
  color: var(--stop);
}
.add {
  justify-self: start;
}
</style>
