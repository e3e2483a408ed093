<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, defineAsyncComponent, ref } from 'vue'
import { useRouter } from 'vue-router'
import { api, call, sentenceOf, within, type Schemas } from '../api/client'
import { refresh } from '../api/kept'
import { bandsOfShares } from '../blend/bands'
import PieceBadge from '../ui/PieceBadge.vue'
import CautionList from '../ui/CautionList.vue'
import { useCatalogue } from '../ui/catalogue'
import ConflictBar from '../ui/ConflictBar.vue'
import { differences } from '../ui/differences'
import { say } from '../ui/notice'
import { once } from '../ui/once'
import SaveMark from '../ui/SaveMark.vue'
import TitleInput from '../ui/TitleInput.vue'
import { asTyped, fromTyped } from '../ui/units'
import CoreSample, { type Cored } from './CoreSample.vue'
import { layerColour, layerName } from './layers'
import LedgerPlate from './LedgerPlate.vue'
import PiecePlate from './PiecePlate.vue'
import PieceTabs from './PieceTabs.vue'
import StackPlate from './StackPlate.vue'
import TotalsPlate from './TotalsPlate.vue'
import { typed, useCoat } from './useCoat'
import WrongFields from './WrongFields.vue'

const BinderChoice = defineAsyncComponent(() => import('./BinderChoice.vue'))
const InjectionPlate = defineAsyncComponent(() => import('./InjectionPlate.vue'))
const MarinadePlate = defineAsyncComponent(() => import('./MarinadePlate.vue'))
const SideBySide = defineAsyncComponent(() => import('./SideBySide.vue'))

/** Coat: the pieces on the board, the stack of layers on each, and what that comes to. */
const props = defineProps<{ id?: string }>()
const coat = useCoat(props.id)
const { doc, cook, piece, current, reading, autosave, history, loaded, error, atS } = coat
const { grinds } = useCatalogue()
const pairing = ref(false)
const none: Schemas['BlendRow'][] = []
const { data: rows } = useQuery({ queryKey: ['blends'], queryFn: () => call(api.GET('/api/blends')) })
const blends = computed(() => rows.value ?? none)

/** The serving time as the browser's own field types it; a half-typed one changes nothing. */
const serve = computed({
  get: () => (doc.value ? asTyped(doc.value.serve_at) : ''),
  set: (text) => {
    const iso = fromTyped(text)
    if (iso && doc.value) doc.value.serve_at = iso
  },
})
const mine = computed(() => reading.value?.[current.value] ?? null)
const solids = computed(() => (reading.value ?? []).flatMap((found) => (found ? [found.piece.solid] : [])))
const longest = computed(() => Math.max(8, ...solids.value.map((solid) => solid.length_cm)))
const tallest = computed(() => Math.max(6, ...solids.value.map((solid) => solid.width_cm + solid.thickness_cm)))
/** The core samples to lay over each other: the open piece's, and of the compared ones the other. */
const cores = computed<Cored[]>(() =>
  (doc.value?.pieces ?? []).flatMap((other, at) => {
    const sample = reading.value?.[at]?.sample
    const shown = at === current.value || (other.tasted && piece.value?.tasted)
    return sample && shown ? [{ letter: other.letter, name: other.name, sample }] : []
  }),
)
const lying = computed(() =>
  (piece.value?.layers ?? []).flatMap((layer, n) =>
    ['rub', 'paste', 'binder'].includes(layer.kind) && mine.value?.layers[n]
      ? [{ layer, read: mine.value.layers[n] }]
      : [],
  ),
)
const coated = computed(() => lying.value.findLast(({ layer }) => layer.kind !== 'binder'))
const crust = computed(() => {
  const blend = blends.value.find((row) => row.id === coated.value?.layer.blend_id)
  if (!blend) return []
  return bandsOfShares(
    blend.grinds.map((grind, n) => ({ grind, share: blend.shares[n] })),
    grinds.value,
  )
})
const crustPx = computed(() => Math.round(Math.min(64, 14 + (coated.value?.read.dose_setting ?? 0) * 4)))
const binder = computed(() => {
  const found = lying.value.find(({ layer }) => layer.kind === 'binder')
  return found ? layerColour(found.layer, blends.value, grinds.value) : ''
})
/** The layers that go in through a needle or a bath, with what they come to. */
const wet = computed(() =>
  (piece.value?.layers ?? []).flatMap((layer, at) => {
    const read = mine.value?.layers[at]
    return (read?.injection || read?.window) && read.kind === layer.kind ? [{ layer, at, read }] : []
  }),
)
const router = useRouter()
const queries = useQueryClient()
const copy = once(async () => {
  try {
    await autosave.flush()
    const made = await call(api.POST('/api/cooks/{cook_id}/copy', { params: { path: coat.path() } }))
    await refresh(queries, ['home'], ['cooks'])
    say(`“${made.name}” is in hand now.`)
    await router.push(`/coat/${made.id}`)
  } catch (failure) {
    say(sentenceOf(failure))
  }
})
const errorsOfLayer = (at: number) => within(coat.errorsOf(current.value), `layers.${at}.`)
const conflict = computed(() =>
  autosave.theirs.value && doc.value ? differences(doc.value, typed(autosave.theirs.value)) : [],
)
const ticked = computed(() => (doc.value?.pieces ?? []).filter((other) => other.tasted).length)
</script>

<template>
  <main v-if="doc && cook && piece">
    <header class="station-head">
      <div class="title">
        <TitleInput v-model="doc.name" label="Name of the cook" :error="coat.errors.value.name" />
        <p class="muted">
          <label for="serve">Served</label>
          <input id="serve" v-model="serve" type="datetime-local" />
          <span v-if="coat.errors.value.serve_at" class="says" role="alert">{{ coat.errors.value.serve_at }}</span>
        </p>
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
    <SideBySide v-if="pairing" :coat="coat" :blends="blends" @done="pairing = false" />
    <section :aria-label="`Piece ${piece.letter}, ${piece.name}`">
      <div class="piece-name">
        <PieceBadge :letter="piece.letter" />
        <TitleInput
          v-model="piece.name"
          :label="`Name of piece ${piece.letter}`"
          :most="40"
          size="part"
          :error="coat.errorsOf(current).name"
        />
        <label v-if="piece.tasted || ticked < 2" class="tick">
          <input
            type="checkbox"
            :checked="piece.tasted"
            @change="piece.tasted = ($event.target as HTMLInputElement).checked"
          />
          in the tasting
        </label>
        <button v-if="doc.pieces.length > 1" type="button" class="link" @click="coat.removePiece(current)">
          Take it off the board
        </button>
      </div>
      <CautionList v-if="mine" :cautions="mine.cautions" only="stops" />
      <div class="board">
        <PiecePlate
          :key="piece.letter"
          v-model="doc.pieces[current]"
          v-model:eaters="doc.eaters as number | null"
          v-model:appetite="doc.appetite as 'usual'"
          :reading="mine?.piece ?? null"
          :cut-up="mine?.cut_up ?? null"
          :errors="coat.errorsOf(current)"
          :longest="longest"
          :tallest="tallest"
          :label="piece.letter"
          @skin="coat.takeSkin()"
        />
        <CoreSample
          v-if="cores.length"
          v-model:at="atS"
          :cores="cores"
          :own="piece.letter"
          :crust="crust"
          :crust-px="crustPx"
          :binder="binder"
          :old="Object.keys(coat.errorsOf(current)).length > 0"
          :surface-of="coated ? layerName(coated.layer, blends, grinds) : ''"
        />
        <section v-else class="plate empty">
          <h2>From crust to centre</h2>
          <p v-if="coat.cored.value" class="muted">
            {{
              piece.layers.length
                ? 'No layer is held on bare meat, so no salt moves in yet.'
                : 'Put a layer on, and here is how far its salt gets.'
            }}
          </p>
        </section>
        <StackPlate :key="`stack ${piece.letter}`" :coat="coat" :blends="blends" />
      </div>
      <BinderChoice v-if="coat.binding.value" :coat="coat" class="wet" />
      <template v-for="one in wet" :key="`wet ${piece.letter} ${one.at}`">
        <InjectionPlate
          v-if="one.read.injection"
          :coat="coat"
          :at="one.at"
          :reading="one.read"
          :piece="mine!.piece"
          :name="layerName(one.layer, blends, grinds)"
          :errors="errorsOfLayer(one.at)"
          class="wet"
        />
        <MarinadePlate
          v-else
          :coat="coat"
          :at="one.at"
          :reading="one.read"
          :name="layerName(one.layer, blends, grinds)"
          :errors="errorsOfLayer(one.at)"
          class="wet"
        />
      </template>
    </section>
    <div class="under">
      <LedgerPlate :coat="coat" :blends="blends" />
      <CautionList v-if="mine" :cautions="mine.cautions" only="others" />
      <TotalsPlate :coat="coat" />
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
  gap: 6px 12px;
  padding: 10px 18px;
  margin: 0 0 14px;
}
.tasted .v-btn {
  margin-left: auto;
}
.title {
  flex: 1 1 340px;
  min-width: 0;
}
.title p {
  margin: 2px 0 0;
  display: flex;
  align-items: center;
  gap: 10px;
  flex-wrap: wrap;
}
.title p input {
  width: auto !important;
}
.says {
  color: var(--stop);
  font-size: 14px;
}
.board {
  display: grid;
  grid-template-columns: 292px minmax(0, 1fr) 348px;
  gap: 16px;
  align-items: start;
  margin-bottom: 16px;
}
.piece-name {
  display: flex;
  align-items: center;
  gap: 12px;
  margin-bottom: 10px;
  flex-wrap: wrap;
}
.piece-name > :nth-child(2) {
  flex: 1 1 220px;
}
.tick {
  display: flex;
  gap: 8px;
  align-items: center;
  font-size: 14px;
}
.tick input {
  width: 18px;
  height: 18px;
  accent-color: var(--cobalt);
}
.link {
  font-size: 14px;
}
.empty {
  min-height: 420px;
  padding: 18px 22px;
}
.wet {
  margin-bottom: 16px;
}
.under {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 16px;
}
@media (max-width: 1120px) {
  .board {
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  }
  .board > :nth-child(2) {
    order: 3;
    grid-column: 1 / -1;
  }
}
@media (max-width: 720px) {
  .board {
    grid-template-columns: minmax(0, 1fr);
  }
  .link,
  .tick {
    min-height: 44px;
  }
}
</style>
