<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '../api/client'
import { shortDay } from '../kit/units'
import { useWidth } from '../kit/useWidth'
import TakePicture from './TakePicture.vue'
import { counted, type Cell } from './useQuestion'

/** The evidence: a row a cook, a mark a taster at the difference they scored; and what it would be without the cook. */
const props = defineProps<{ cell: Cell; reading: Schemas['CellReading'] }>()
const box = ref<HTMLElement | null>(null)
const list = ref<HTMLElement | null>(null)
const width = useWidth(box)
const reach = computed(() => {
  const all = props.reading.cooks.flatMap((cook) => cook.cards.map((card) => Math.abs(card.difference)))
  return Math.max(3, ...all)
})
const PAD = 16
const x = (points: number) => PAD + ((points + reach.value) / (2 * reach.value)) * (width.value - 2 * PAD)
/** Marks of one difference stand on each other. */
const stacked = (cards: Schemas['PairCard'][]) => {
  const there = new Map<number, number>()
  return cards.map((card) => {
    const level = there.get(card.difference) ?? 0
    there.set(card.difference, level + 1)
    return { card, level }
  })
}
const rows = computed(() =>
  props.reading.cooks.map((cook, n) => {
    const marks = stacked(cook.cards)
    return {
      cook,
      of: props.cell.cooks[n],
      marks,
      height: 26 + 14 * Math.max(0, ...marks.map((mark) => mark.level)),
      without: props.reading.without.find((one) => one.cooks[0] === cook.key),
    }
  }),
)
const side = (points: number) => (points < 0 ? 'first' : points > 0 ? 'second' : 'none')
const votes = (cook: Schemas['PairCook']) => {
  const { first, second, neither } = cook.votes
  if (first + second + neither === 0) return ''
  return `preferred: ${first} ${props.cell.names[0]}, ${second} ${props.cell.names[1]}${neither ? `, ${neither} neither` : ''}`
}
const told = ref('')
const says = (card: Schemas['PairCard']) => {
  const words = card.words.flatMap((some, at) => some.map((word) => `${word} (${props.cell.names[at]})`))
  const liked = card.liked.map((score, at) => `${props.cell.names[at]} ${score}`).join(', ')
  return `${card.taster}: ${liked}${card.blind ? '' : ', knew which was which'}${words.length ? `; ${words.join(', ')}` : ''}`
}
</script>

<template>
  <section class="plate strip" aria-labelledby="evidence">
    <h2 id="evidence">Every cook and card</h2>
    <p class="muted key">
      <span>◀ {{ cell.names[0] }}</span
      ><span>points of nine</span><span>{{ cell.names[1] }} ▶</span>
    </p>
    <div ref="box" class="measure" />
    <ol ref="list">
      <li v-for="row in rows" :key="row.cook.key">
        <div class="head">
          <span
            ><router-link v-if="row.of" :to="`/verdict/${row.of.trial_id}`" class="link">{{
              row.cook.name
            }}</router-link>
            <span v-if="row.of" class="muted">
              {{ shortDay(row.of.serve_at) }}, {{ counted(row.cook.cards.length, 'card') }}</span
            ></span
          >
          <span v-if="row.without" class="muted">{{ row.without.says }}</span>
        </div>
        <svg
          :data-caption="row.cook.name"
          :width="width"
          :height="row.height"
          :viewBox="`0 0 ${width} ${row.height}`"
          aria-hidden="true"
        >
          <rect
            class="band"
            :x="x(-cell.margin)"
            y="0"
            :width="x(cell.margin) - x(-cell.margin)"
            :height="row.height"
          />
          <line class="zero" :x1="x(0)" :x2="x(0)" y1="0" :y2="row.height" />
          <line class="base" :x1="PAD" :x2="width - PAD" :y1="row.height - 5" :y2="row.height - 5" />
          <g
            v-for="mark in row.marks"
            :key="mark.card.taster"
            :class="[side(mark.card.difference), { knew: !mark.card.blind }]"
          >
            <title>{{ says(mark.card) }}</title>
            <rect
              v-if="mark.card.difference > 0"
              :x="x(mark.card.difference) - 5.5"
              :y="row.height - 17 - 14 * mark.level"
              width="11"
              height="11"
            />
            <circle v-else :cx="x(mark.card.difference)" :cy="row.height - 11.5 - 14 * mark.level" r="5.8" />
          </g>
        </svg>
        <p v-if="votes(row.cook)" class="muted">{{ votes(row.cook) }}</p>
        <p v-for="muddy in row.cook.muddied" :key="muddy.what" class="muddy">{{ muddy.sentence }}</p>
        <button
          v-if="row.marks.length"
          type="button"
          class="link"
          :aria-expanded="told === row.cook.key"
          @click="told = told === row.cook.key ? '' : row.cook.key"
        >
          {{ told === row.cook.key ? 'Close the cards' : 'Who said what' }}
        </button>
        <ul v-if="told === row.cook.key" class="cards">
          <li v-for="mark in row.marks" :key="mark.card.taster">{{ says(mark.card) }}</li>
        </ul>
      </li>
    </ol>
    <TakePicture :of="() => list" :name="`${cell.names[0]} or ${cell.names[1]}, ${cell.cut}`" />
  </section>
</template>

<style scoped>
.strip {
  padding: var(--s-20) var(--s-24);
}
.key {
  display: flex;
  justify-content: space-between;
  font-size: var(--t-s);
  margin: var(--s-6) 0;
}
.measure {
  height: 0;
}
ol,
.cards {
  list-style: none;
  margin: 0;
  padding: 0;
}
ol > li {
  border-top: 1px solid var(--line);
  padding: var(--s-8) 0;
}
.head .link {
  margin-right: var(--s-8);
}
.head {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: var(--s-2) var(--s-16);
  font-size: var(--t-m);
  margin-bottom: var(--s-4);
}
svg {
  display: block;
}
.band {
  fill: var(--tint);
}
.zero {
  stroke: var(--line-strong);
  stroke-width: 1.5;
}
.base {
  stroke: var(--line);
}
.first {
  fill: var(--piece-a);
}
.second {
  fill: var(--piece-b);
}
.none {
  fill: color-mix(in srgb, var(--muted) 55%, var(--line-strong));
}
.knew {
  opacity: 0.45;
}
p,
.cards {
  margin: var(--s-4) 0 0;
  font-size: var(--t-s);
}
.cards li {
  padding: var(--s-2) 0;
}
.muddy {
  color: var(--caution);
}
button {
  font-size: var(--t-s);
}
</style>
