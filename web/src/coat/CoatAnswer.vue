<script setup lang="ts">
import { computed } from 'vue'
import { useCatalogue } from '../api/catalogue'
import OldMark from '../kit/OldMark.vue'
import PieceBadge from '../draw/PieceBadge.vue'
import { usePreferences } from '../app/preferences'
import { percent } from '../kit/units'
import Why from '../kit/Why.vue'
import SaltBar from './SaltBar.vue'
import SaltWanted from './SaltWanted.vue'
import { coatHere } from './useCoat'

/** The answer of Coat: what to put on, over what is there already, and the salt that all of it makes. */
const coat = coatHere()
const { catalogue } = useCatalogue()
const { show } = usePreferences()

const COATS = ['rub', 'paste', 'marinade', 'injection', 'pre-salt', 'cooking liquid']
/** The layer that is the coat: a rub before a bath before a needle before salt alone; what lies inside it is before it. */
const main = computed(() => {
  const layers = coat.piece.value?.layers ?? []
  const read = coat.mine.value?.layers ?? []
  const ranked = layers
    .map((layer, at) => ({ layer, at, read: read[at], rank: COATS.indexOf(layer.kind) }))
    .filter((one) => one.read && one.read.kind === one.layer.kind)
    .sort((a, b) => (a.rank < 0 ? 9 : a.rank) - (b.rank < 0 ? 9 : b.rank) || b.at - a.at)
  return ranked[0] ?? null
})
const over = computed(() =>
  (coat.piece.value?.layers ?? []).flatMap((layer, at) => {
    const read = coat.mine.value?.layers[at]
    if (!main.value || at >= main.value.at || !read || layer.kind === 'drippings') return []
    const amount = show.value.spoonsFirst && read.dose.unit !== 'ml' ? read.spoons.text : said(read.dose)
    return [`${amount} of ${coat.nameOf(layer).toLowerCase()}`]
  }),
)
const said = (dose: { value: number; unit: string }) =>
  dose.unit === 'ml' ? show.value.volume(dose.value) : show.value.dose(dose.value)

/** A cook in the US view measures a rub by the spoon, and a bath in cups. */
const bySpoon = computed(() => show.value.spoonsFirst && main.value?.read?.dose.unit !== 'ml')
const big = computed(() => {
  const read = main.value?.read
  return !read ? '' : bySpoon.value ? read.spoons.text : said(read.dose)
})

const rows = computed(() =>
  (coat.doc.value?.pieces ?? []).flatMap((piece, at) => {
    const reading = coat.reading.value?.[at]
    if (!reading) return []
    const layers = reading.layers.map((layer, n) => ({
      value: layer?.salt.value ?? 0,
      colour: piece.layers[n] ? coat.colourOf(piece.layers[n]) : '#999',
      name: piece.layers[n] ? coat.nameOf(piece.layers[n]) : (layer?.kind ?? ''),
    }))
    return [{ piece, at, reading, layers, old: Object.keys(coat.errorsOf(at)).length > 0 }]
  }),
)
const mine = computed(() => rows.value.find((row) => row.at === coat.current.value))
const others = computed(() => rows.value.filter((row) => row.at !== coat.current.value))
const full = computed(() => Math.max(2.8, ...rows.value.map((row) => row.reading.salt.value * 1.12)))
/** Where it is dragged to: what is typed, as keys come faster than answers. */
const aim = computed(() => {
  const aimed = mine.value?.reading.target ?? null
  return aimed === null ? null : parseFloat(coat.piece.value?.target ?? '') || aimed
})
</script>

<template>
  <section v-if="mine" id="salt" class="answer coat-answer" aria-label="Salt ledger">
    <div class="put">
      <p v-if="main?.read" class="big">{{ big }} of {{ coat.nameOf(main.layer) }}</p>
      <p v-else class="big">Nothing on it yet</p>
      <p v-if="main?.read">
        <Why v-if="bySpoon" :figure="main.read.dose" of="What goes on">{{ said(main.read.dose) }}</Why>
        <Why v-else :figure="main.read.spoons.volume" of="Level spoons">{{ main.read.spoons.text }}</Why><template
          v-if="over.length"
          >, over {{ over.join(' and ') }}</template
        >
      </p>
      <p class="sum">
        <b
          ><Why :figure="mine.reading.salt" :of="`Salt on ${mine.piece.letter}`">{{
            percent(mine.reading.salt.value)
          }}</Why></b
        >
        salt in all: {{ mine.reading.zone }} <OldMark v-if="mine.old" />
      </p>
    </div>
    <div class="salt">
      <SaltBar
        :layers="mine.layers"
        :low="mine.reading.salt.low"
        :high="mine.reading.salt.high"
        :full="full"
        :zones="catalogue?.zones ?? []"
        :aim="aim"
        @aim="coat.aimAt($event.toFixed(2))"
        @hold="coat.history.hold()"
        @release="coat.history.release()"
      />
      <p v-for="row in others" :key="row.piece.letter" class="other">
        <span class="who"><PieceBadge :letter="row.piece.letter" /> {{ row.piece.name }}</span>
        <SaltBar :layers="row.layers" :low="row.reading.salt.low" :high="row.reading.salt.high" :full="full" />
        <span>
          <Why :figure="row.reading.salt" :of="`Salt on ${row.piece.letter}`">{{
            percent(row.reading.salt.value)
          }}</Why>
          <OldMark v-if="row.old" />
        </span>
      </p>
      <div class="about">
        <p>
          Thin end
          <Why :figure="mine.reading.thin" of="Salt of the thin end">{{ percent(mine.reading.thin.value) }}</Why>. A
          serving, {{ mine.reading.servings.value.toFixed(1) }} of them:
          <Why :figure="mine.reading.sodium" of="Sodium a serving"
            >{{ Math.round(mine.reading.sodium.value) }} mg sodium</Why
          >,
          <Why :figure="mine.reading.sugar" of="Sugar a serving">{{ mine.reading.sugar.value.toFixed(1) }} g sugar</Why
          >.
        </p>
        <SaltWanted />
      </div>
    </div>
  </section>
</template>

<style scoped>
.coat-answer {
  padding: var(--s-20) var(--s-24);
  display: grid;
  grid-template-columns: minmax(0, 5fr) minmax(0, 7fr);
  gap: var(--s-14) var(--s-32);
  align-items: start;
  margin-bottom: var(--s-16);
}
p {
  margin: 0;
}
.put {
  display: grid;
  gap: var(--s-8);
}
.put .big {
  font-size: var(--t-big);
  line-height: 1.1;
  text-wrap: balance;
}
.sum b {
  font-size: var(--t-h2);
}
.salt {
  display: grid;
  gap: var(--s-10);
}
.other {
  display: grid;
  grid-template-columns: minmax(0, 150px) minmax(0, 1fr) auto;
  gap: var(--s-12);
  align-items: center;
  font-size: var(--t-s);
}
.who {
  display: flex;
  gap: var(--s-8);
  align-items: center;
  line-height: 1.2;
}
.about {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s-10) var(--s-24);
  justify-content: space-between;
  align-items: end;
  font-size: var(--t-s);
}
.about > p {
  flex: 1 1 200px;
}
@media (max-width: 900px) {
  .coat-answer {
    grid-template-columns: minmax(0, 1fr);
    padding: var(--s-16);
  }
  .put .big {
    font-size: var(--t-h1);
  }
}
</style>
