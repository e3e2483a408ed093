<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { computed, defineAsyncComponent, provide, ref } from 'vue'
import { useRouter } from 'vue-router'
import { api, call, sentenceOf, within } from '../api/client'
import { useChange } from '../api/change'
import { refresh } from '../api/kept'
import CautionList from '../kit/CautionList.vue'
import ConflictBar from '../edit/ConflictBar.vue'
import { differences } from '../edit/differences'
import { say } from '../kit/notice'
import SaveMark from '../edit/SaveMark.vue'
import TitleInput from '../kit/TitleInput.vue'
import CoatAnswer from './CoatAnswer.vue'
import JumpBar from './JumpBar.vue'
import OutsideIn from './OutsideIn.vue'
import PiecePlate from './PiecePlate.vue'
import PieceTabs from './PieceTabs.vue'
import NextTime from './NextTime.vue'
import TotalsPlate from './TotalsPlate.vue'
import { COAT, typed, useCoat } from './useCoat'
import When from '../kit/When.vue'
import WrongFields from './WrongFields.vue'

const BinderChoice = defineAsyncComponent(() => import('./BinderChoice.vue'))
const InjectionPlate = defineAsyncComponent(() => import('./InjectionPlate.vue'))
const HeatPlate = defineAsyncComponent(() => import('../heat/HeatPlate.vue'))
const MarinadePlate = defineAsyncComponent(() => import('./MarinadePlate.vue'))
const SideBySide = defineAsyncComponent(() => import('./SideBySide.vue'))

/** Coat: the pieces on the board, the stack of layers on each, and what that comes to. */
const props = defineProps<{ id?: string }>()
const coat = useCoat(props.id)
const { doc, cook, piece, current, reading, autosave, history, loaded, error } = coat
provide(COAT, coat)
const pairing = ref(false)

/** When it is served; one that is unclear changes nothing. */
const serve = computed({
  get: () => doc.value?.serve_at ?? '',
  set: (iso) => {
    if (iso && doc.value) doc.value.serve_at = iso
  },
})
const mine = coat.mine
const solids = computed(() => (reading.value ?? []).flatMap((found) => (found ? [found.piece.solid] : [])))
const longest = computed(() => Math.max(8, ...solids.value.map((solid) => solid.length_cm)))
const tallest = computed(() => Math.max(6, ...solids.value.map((solid) => solid.width_cm + solid.thickness_cm)))
/** The layers that go in through a needle or a bath, with what they come to. */
const wet = computed(() =>
  (piece.value?.layers ?? []).flatMap((layer, at) => {
    const read = mine.value?.layers[at]
    return (read?.injection || read?.window) && read.kind === layer.kind ? [{ layer, at, read }] : []
  }),
)
const router = useRouter()
const queries = useQueryClient()
const copy = useChange('cooks', async () => {
  await autosave.flush()
  const made = await call(api.POST('/api/cooks/{cook_id}/copy', { params: { path: coat.path() } }))
  await refresh(queries, ['home'], ['cooks'])
  say(`“${made.name}” is in hand now.`)
  await router.push(`/coat/${made.id}`)
})
const errorsOfLayer = (at: number) => within(coat.errorsOf(current.value), `layers.${at}.`)
const conflict = computed(() =>
  autosave.theirs.value && doc.value ? differences(doc.value, typed(autosave.theirs.value)) : [],
)
const PARTS = [
  { id: 'piece', name: 'Piece' }, { id: 'layers', name: 'Layers' }, { id: 'depth', name: 'Depth' },
  { id: 'fire', name: 'Fire' }, { id: 'salt', name: 'Salt' }, { id: 'notes', name: 'Notes' },
] // prettier-ignore
/** A stop has a place of its own on the bar while there is one, so that it is seen wherever the page is. */
const parts = computed(() =>
  mine.value?.cautions.some((one) => one.level === 'stop')
    ? [{ id: 'stops', name: 'Stop', stop: true }, ...PARTS]
    : PARTS,
)
const ticked = computed(() => (doc.value?.pieces ?? []).filter((other) => other.tasted).length)
</script>

<template>
  <main v-if="doc && cook && piece">
    <header class="station-head">
      <div class="title">
        <h1 class="sr-only">{{ doc.name }}</h1>
        <TitleInput v-model="doc.name" label="Name of the cook" :error="coat.errors.value.name" />
        <When v-model="serve" label="Served" inline :error="coat.errors.value.serve_at" />
      </div>
      <div class="tools">
        <SaveMark
          :state="autosave.state.value"
          :refusal="autosave.refusal.value"
          :wrong="Object.keys(coat.errors.value).length"
        />
        <v-btn :disabled="!history.canUndo.value" @click="history.undo()">Undo</v-btn>
        <v-btn :aria-expanded="pairing" @click="pairing = !pairing">Side by side</v-btn>
      </div>
    </header>
    <ConflictBar
      v-if="autosave.theirs.value"
      what="cook"
      :differences="conflict"
      @mine="autosave.keepMine()"
      @theirs="autosave.takeTheirs()"
    />
    <p v-if="coat.tasted.value && piece.tasted" class="plate tasted" role="status">
      <b>Tasted, {{ cook.trial?.cards }} {{ cook.trial?.cards === 1 ? 'card' : 'cards' }} in.</b>
      What was tasted stays as it was: pieces, layers, names and numbers.
      <v-btn @click="copy">Change a copy of it</v-btn>
    </p>
    <WrongFields :pieces="doc.pieces" :errors="coat.errors.value" @open="current = $event" />
    <PieceTabs
      v-model="current"
      :pieces="doc.pieces"
      :readings="reading ?? []"
      :errors="coat.errors.value"
      @add="coat.addPiece()"
    />
    <SideBySide v-if="pairing" @done="pairing = false" />
    <section :aria-label="`Piece ${piece.letter}, ${piece.name}`">
      <CautionList v-if="mine" id="stops" :cautions="mine.cautions" only="stops" />
      <JumpBar :parts="parts" />
      <CoatAnswer />
      <div class="board">
        <div class="beside">
          <PiecePlate
            id="piece"
            :key="piece.letter"
            :longest="longest"
            :tallest="tallest"
            :may-be-tasted="piece.tasted || ticked < 6"
          />
          <section v-if="mine?.cautions.length" id="notes" aria-label="Notes">
            <CautionList :cautions="mine.cautions" only="others" :most="3" />
          </section>
        </div>
        <OutsideIn id="layers" :key="`stack ${piece.letter}`" />
      </div>
      <BinderChoice v-if="coat.binding.value" class="wet" />
      <template v-for="one in wet" :key="`wet ${piece.letter} ${one.at}`">
        <InjectionPlate
          v-if="one.read.injection"
          :at="one.at"
          :reading="one.read"
          :piece="mine!.piece"
          :name="coat.nameOf(one.layer)"
          :errors="errorsOfLayer(one.at)"
          class="wet"
        />
        <MarinadePlate
          v-else
          :at="one.at"
          :reading="one.read"
          :name="coat.nameOf(one.layer)"
          :errors="errorsOfLayer(one.at)"
          class="wet"
        />
      </template>
      <HeatPlate id="fire" :key="`fire ${piece.letter}`" class="wet" />
    </section>
    <div class="under">
      <TotalsPlate />
      <NextTime />
    </div>
  </main>
  <main v-else>
    <h1>Coat</h1>
    <p v-if="error" class="muted">{{ sentenceOf(error) }}</p>
    <p v-else-if="loaded === null" class="muted">
      No cook is in hand, so there is nothing to coat. <router-link to="/">Begin a cook</router-link>
    </p>
    <p v-else class="muted">Laying out the pieces …</p>
  </main>
</template>

<style scoped>
.tasted {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s-6) var(--s-12);
  padding: var(--s-10) var(--s-20);
  margin: 0 0 var(--s-14);
}
.tasted .v-btn {
  margin-left: auto;
}
.title {
  flex: 1 1 340px;
  min-width: 0;
  display: flex;
  flex-wrap: wrap;
  gap: var(--s-2) var(--s-20);
  align-items: center;
}
.title > :first-child {
  flex: 1 1 260px;
}
.board {
  display: grid;
  grid-template-columns: 300px minmax(0, 1fr);
  gap: var(--s-16);
  align-items: start;
  margin-bottom: var(--s-16);
}
.beside {
  display: grid;
  gap: var(--s-16);
  align-content: start;
}
.wet {
  margin-bottom: var(--s-16);
}
.under {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--s-16);
}
/* what is jumped to stops under the bar that was tapped */
.beside > *,
.board > *,
.under > * {
  scroll-margin-top: 56px;
}
@media (max-width: 860px) {
  .board {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
