<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../api/client'
import CautionList from '../kit/CautionList.vue'
import OldMark from '../kit/OldMark.vue'
import PieceBadge from '../draw/PieceBadge.vue'
import { useCatalogue } from '../api/catalogue'
import { usePreferences } from '../app/preferences'
import { percent } from '../kit/units'
import Why from '../kit/Why.vue'
import CrustPlate from './CrustPlate.vue'
import type { timesOf } from './planned'
import StepList from './StepList.vue'
import { sure } from '../kit/sure'

/** A piece of the cook in hand: its crust on a plate, its dose, its salt and its steps. */
const props = defineProps<{
  piece: Schemas['BoardPieceOut']
  cookId: string
  nextStep?: string
  wide?: boolean
  times: ReturnType<typeof timesOf> | null
}>()
defineEmits<{ tick: [stepId: string, done: boolean]; length: [stepId: string, lasts: string] }>()

const { catalogue, grinds, cuts } = useCatalogue()
const { show } = usePreferences()
const MAIN = ['rub', 'paste', 'marinade', 'injection']
const at = computed(() => {
  const kinds = props.piece.typed.layers.map((layer) => layer.kind)
  return Math.max(
    0,
    kinds.findIndex((kind) => MAIN.includes(kind)),
  )
})
const main = computed(() => props.piece.typed.layers[at.value])
const mark = computed(() => props.piece.marks[at.value])
const reading = computed(() => props.piece.reading?.layers[at.value])
const blend = computed(() =>
  (mark.value?.grinds ?? []).flatMap((key, n) => {
    const of = grinds.value.get(key)
    return of && mark.value ? [{ of, share: mark.value.shares[n] ?? 0 }] : []
  }),
)
const meat = computed(() => cuts.value.get(props.piece.typed.cut)?.name ?? 'a cut that is gone')
/** The stack in a line: "salt, orange and buttermilk, rub". */
const describes = computed(
  () =>
    props.piece.typed.layers
      .map(
        (layer, n) => sure(props.piece.marks[n]).blend_name || (layer.kind === 'pre-salt' ? 'salt ahead' : layer.kind),
      )
      .join(', then ') || 'no seasoning yet',
)
const bath = computed(() => main.value?.kind === 'marinade')
const amount = computed(() => {
  const dose = reading.value?.dose
  return !dose ? '' : dose.unit === 'ml' ? show.value.volume(dose.value) : show.value.dose(dose.value)
})
/** Each layer with what goes on of it, where there is room to say it. */
const layers = computed(() =>
  props.piece.typed.layers.map((layer, n) => {
    const dose = props.piece.reading?.layers[n]?.dose
    return {
      name: props.piece.marks[n]?.blend_name || grindNames.value.get(layer.grind ?? '') || layer.kind,
      kind: layer.kind,
      amount: !dose ? '' : dose.unit === 'ml' ? show.value.volume(dose.value) : show.value.dose(dose.value),
    }
  }),
)
const grindNames = computed(() => new Map([...grinds.value].map(([key, grind]) => [key, grind.name])))
const unit = computed(() => catalogue.value?.layer_kinds.find((kind) => kind.key === main.value?.kind)?.unit ?? '')
</script>

<template>
  <section
    class="plate piece"
    :class="{ wide, few: layers.length < 2 }"
    :aria-label="`Piece ${piece.typed.letter}, ${piece.typed.name}`"
  >
    <header>
      <PieceBadge :letter="piece.typed.letter" />
      <h2>{{ piece.typed.name }}</h2>
      <router-link :to="`/coat/${cookId}`" class="muted open">{{ meat }}, {{ piece.typed.mass }}</router-link>
    </header>
    <p class="muted">{{ describes }}</p>
    <p v-for="problem in piece.problems" :key="problem.field" class="problem" role="alert">
      {{ problem.sentence }} <router-link :to="`/coat/${cookId}`">Mend it in Coat</router-link>
    </p>
    <CautionList v-if="piece.reading" :cautions="piece.reading.cautions" only="stops" />
    <div class="body">
      <div class="seen">
        <CrustPlate :blend="blend" :bath="bath" :name="piece.typed.name" :solid="piece.reading?.piece.solid" />
        <p v-if="!layers.length" class="bare">
          <router-link :to="`/coat/${cookId}`" class="link">Season it in Coat</router-link>
        </p>
        <div v-else-if="reading && piece.reading">
          <p class="big">
            <Why :figure="reading.dose" :of="`Dose of ${mark?.blend_name || main?.kind}`">{{ amount }}</Why>
          </p>
          <p class="muted">
            {{ main?.kind
            }}{{ bath && main?.vessel ? `, in a ${main.vessel}` : `, ${show.setting(reading.dose_setting, unit)}` }}
          </p>
          <p class="big">
            <Why :figure="piece.reading.salt" :of="`Salt on ${piece.typed.letter}`">{{
              percent(piece.reading.salt.value)
            }}</Why>
          </p>
          <p class="muted">salt, all layers: {{ piece.reading.zone }} <OldMark v-if="piece.problems.length" /></p>
        </div>
      </div>
      <ul v-if="wide && layers.length > 1" class="layers" aria-label="Layers">
        <li v-for="(layer, n) in layers" :key="n">
          <b>{{ layer.amount }}</b>
          <span
            >{{ layer.name }}<small v-if="layer.name !== layer.kind" class="muted">{{ layer.kind }}</small></span
          >
        </li>
      </ul>
      <StepList
        :piece="piece"
        :cook-id="cookId"
        :next-step="nextStep"
        :times="times"
        @tick="(id, done) => $emit('tick', id, done)"
        @length="(id, lasts) => $emit('length', id, lasts)"
      />
    </div>
  </section>
</template>

<style scoped>
.piece {
  padding: var(--s-20) var(--s-24);
}
header {
  display: flex;
  align-items: center;
  gap: var(--s-12);
}
.open {
  margin-left: auto;
  text-decoration: underline;
  text-underline-offset: 3px;
  font-size: var(--t-m);
}
p {
  margin: var(--s-4) 0 0;
  font-size: var(--t-m);
}
.body {
  display: grid;
  grid-template-columns: 196px minmax(0, 1fr);
  gap: var(--s-24);
  margin-top: var(--s-10);
}
.big {
  font-size: var(--t-h1);
  line-height: 1.1;
  margin-top: var(--s-10);
}
.problem {
  color: var(--stop);
}
.wide .body {
  grid-template-columns: 400px minmax(0, 1fr) minmax(0, 1.5fr);
}
.wide .seen {
  display: grid;
  grid-template-columns: 196px minmax(0, 1fr);
  gap: var(--s-20);
  align-content: start;
}
.wide.few .body {
  grid-template-columns: 400px minmax(0, 1fr);
}
.bare {
  align-self: center;
}
.layers {
  list-style: none;
  margin: var(--s-6) 0 0;
  padding: 0;
}
.layers li {
  display: grid;
  grid-template-columns: 76px minmax(0, 1fr);
  gap: var(--s-10);
  padding: var(--s-8) 0;
  border-top: 1px solid var(--line);
}
.layers li:first-child {
  border-top: 0;
}
.layers b {
  text-align: right;
}
small {
  display: block;
  font-size: var(--t-xs);
}
@media (max-width: 1100px) {
  .wide .body,
  .wide.few .body {
    grid-template-columns: 196px minmax(0, 1fr);
  }
  .wide .seen {
    display: block;
  }
  .layers {
    display: none;
  }
}
@media (max-width: 720px) {
  .piece {
    padding: var(--s-16);
  }
  .body,
  .wide .body,
  .wide.few .body {
    grid-template-columns: minmax(0, 1fr);
  }
  .seen,
  .wide .seen {
    display: grid;
    grid-template-columns: 196px minmax(0, 1fr);
    align-items: center;
    gap: var(--s-14);
  }
}
</style>
