<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '../api/client'
import CutChoice from '../shelf/CutChoice.vue'
import { useCatalogue } from '../api/catalogue'
import Field from '../kit/Field.vue'
import OldMark from '../kit/OldMark.vue'
import { usePreferences } from '../app/preferences'
import PieceBadge from '../draw/PieceBadge.vue'
import TitleInput from '../kit/TitleInput.vue'
import Why from '../kit/Why.vue'
import Select from '../kit/Select.vue'
import DividePiece from './DividePiece.vue'
import EachPiece from './EachPiece.vue'
import ForEaters from './ForEaters.vue'
import PieceDrawing from './PieceDrawing.vue'
import PieceMore from './PieceMore.vue'
import Tick from '../kit/Tick.vue'
import { coatHere, pieceHere } from './useCoat'
import { sure } from '../kit/sure'

/** The piece: which cut, how heavy, how many, and what is done with each of its faces. */
defineProps<{ longest: number; tallest: number; mayBeTasted: boolean }>()
const coat = coatHere()
const piece = pieceHere()
const reading = computed(() => coat.mine.value?.piece ?? null)
const cutUp = computed(() => coat.mine.value?.cut_up ?? null)
const errors = computed(() => coat.errorsOf(coat.current.value))
const alone = computed(() => (coat.doc.value?.pieces.length ?? 0) < 2)
const { catalogue, cuts } = useCatalogue()
const { show } = usePreferences()

const count = computed({
  get: () => String(piece.value.count ?? 1),
  set: (text) => (piece.value.count = (/^\d+$/.test(text.trim()) ? Number(text) : text) as number),
})
/** The usual minimum in the centre of this animal, as an example of what to write. */
const least = computed(() => {
  const cut = cuts.value.get(piece.value.cut)
  return cut ? show.value.temperature(cut.minimum_centre_c) : ''
})
const endpoint = computed({
  get: () => piece.value.endpoint,
  set: (typed: string) => (piece.value.endpoint = typed),
})
/** What may be done with a face: only skin can be lifted to season under it. */
const statesOf = (face: string) =>
  (catalogue.value?.face_states ?? [])
    .filter((state) => state.key !== 'under' || face === 'skin')
    .map(({ key, says }) => ({ value: key, title: `${key === 'under' ? 'under the skin' : key}: ${says}` }))
type State = NonNullable<Schemas['PieceDocument']['faces']>[string]
function setFace(name: string, state: string) {
  piece.value.faces = { ...piece.value.faces, [name]: state as State }
}
function nextFace(name: string) {
  const keys = statesOf(name).map((state) => state.value)
  const now = reading.value?.faces.find((face) => face.name === name)?.state ?? 'bare'
  setFace(name, sure(keys[(keys.indexOf(now) + 1) % keys.length]))
}
/** Several weights need the whole width. */
const several = computed(() => !!reading.value?.each.length || piece.value.mass.length > 8)
const more = ref(false)
const dividing = ref(false)
const tasted = computed(() => coat.tasted.value && piece.value.tasted)
const forEaters = ref(false)
const says = (name: string) => errors.value[name]
</script>

<template>
  <section class="plate piece" aria-label="The piece">
    <div class="name">
      <PieceBadge :letter="piece.letter" />
      <TitleInput
        v-model="piece.name"
        :label="`Name of piece ${piece.letter}`"
        :most="40"
        size="part"
        :error="says('name')"
      />
    </div>
    <div class="cut" :class="{ wrong: says('cut') }">
      <span class="label">Cut</span>
      <CutChoice v-model="piece.cut" :label="`Cut of piece ${piece.letter}`" @update:model-value="piece.bones = []" />
      <p v-if="says('cut')" class="says" role="alert">{{ says('cut') }}</p>
    </div>
    <div class="fields" :class="{ several }">
      <Field v-model="piece.mass" label="Raw weight" placeholder="2.3 kg" :error="says('mass')" :maxlength="160" />
      <p v-if="reading?.each.length" class="counted">
        <span class="label">Pieces</span>{{ reading.each.length }}, weighed
      </p>
      <Field v-else v-model="count" label="Pieces" :error="says('count')" />
      <Field v-model="endpoint" label="Done at" :placeholder="least" :error="says('endpoint')" />
    </div>
    <p v-if="reading" class="covers">{{ reading.covers }}</p>
    <button type="button" class="link" :aria-expanded="forEaters" @click="forEaters = !forEaters">
      Start from the eaters
    </button>
    <ForEaters
      v-if="forEaters"
      :cut="piece.cut"
      :grade="piece.grade ?? 'ordinary'"
      @take="(mass, bought) => Object.assign(piece, { mass, untrimmed: bought })"
    />
    <PieceDrawing
      v-if="reading"
      :solid="reading.solid"
      :faces="reading.faces"
      :thin="reading.thin_cm"
      :thick="reading.thick_cm"
      :meat="reading.meat_cm"
      :bones="reading.bones"
      :longest="longest"
      :tallest="tallest"
      @face="nextFace"
    />
    <div v-for="face in reading?.faces ?? []" :key="face.name" class="face">
      <Select
        :model-value="face.state"
        :label="`${face.name}, ${show.area(face.area_cm2)}`"
        :options="statesOf(face.name)"
        @update:model-value="$event && setFace(face.name, $event)"
      />
      <button v-if="face.name === 'skin' && face.state !== 'off'" type="button" class="link" @click="coat.takeSkin()">
        Make it a piece of its own
      </button>
    </div>
    <p v-if="says('faces')" class="says" role="alert">{{ says('faces') }}</p>
    <p v-if="reading" class="area">
      <b class="big"
        ><Why :figure="reading.coatable" of="Surface to coat">{{ show.area(reading.coatable.value) }}</Why></b
      >
      <OldMark v-if="Object.keys(errors).some((field) => !field.startsWith('layers.'))" />
      <span class="muted">
        to coat, {{ reading.coatable.error.split(':')[0] }} ·
        <Why :figure="reading.edible" of="Edible raw weight">{{ show.mass(reading.edible.value) }}</Why>
        edible</span
      >
    </p>
    <EachPiece v-if="reading?.each.length" :pieces="reading.each" :salt="coat.mine.value?.each ?? []" />
    <p v-if="cutUp" class="jump">
      Cut into {{ piece.cut_into }} it has
      <Why :figure="cutUp.times" of="What cutting does">{{ cutUp.times.value.toFixed(1) }} times</Why>
      the surface: {{ show.area(cutUp.whole_cm2) }} → {{ show.area(cutUp.cut_cm2) }}, and as much more of whatever goes
      on by surface.
    </p>
    <p v-if="reading?.question" class="question" role="status"><b>Is this right?</b> {{ reading.question }}</p>
    <button type="button" class="link" :aria-expanded="more" @click="more = !more">
      {{ more ? 'Less about it' : 'Grade, trim, measures, cutting it up' }}
    </button>
    <PieceMore v-if="more" :reading="reading" :errors="errors" />
    <p class="board">
      <Tick v-if="mayBeTasted" v-model="piece.tasted">in the tasting</Tick>
      <button v-if="!alone" type="button" class="link" @click="coat.removePiece(coat.current.value)">
        Take it off the board
      </button>
      <button v-if="!tasted" type="button" class="link" @click="dividing = true">Divide it</button>
    </p>
    <DividePiece v-if="dividing" v-model="dividing" />
  </section>
</template>

<style scoped>
.piece {
  padding: var(--s-20) var(--s-20);
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--s-10);
  align-content: start;
}
.name {
  display: flex;
  gap: var(--s-10);
  align-items: center;
}
.name > :last-child {
  flex: 1;
}
.board {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: center;
  gap: var(--s-4) var(--s-12);
  border-top: 1px solid var(--line);
  padding-top: var(--s-8);
}
.fields {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 58px 82px;
  gap: var(--s-10);
  align-items: start;
}
.covers {
  font-size: var(--t-xs);
  color: var(--muted);
}
.counted {
  white-space: nowrap;
}
.several {
  grid-template-columns: 1fr 82px;
}
.several > :first-child {
  grid-column: 1 / -1;
}
.label,
.face span {
  font-size: var(--t-xs);
  color: var(--muted);
  display: block;
  padding-bottom: var(--s-4);
}
p {
  margin: 0;
  font-size: var(--t-s);
}
.says {
  color: var(--stop);
  font-size: var(--t-xs);
}
.big {
  font-size: var(--t-h1);
  margin-right: var(--s-6);
}
.question b {
  color: var(--caution);
}
.link {
  font-size: var(--t-s);
  padding: var(--s-4) 0;
  justify-self: start;
  text-align: left;
}
</style>
