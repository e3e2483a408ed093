<script setup lang="ts">
import { computed, ref } from 'vue'
import { useCatalogue } from '../api/catalogue'
import { heaped } from '../draw/heap'
import { useWidth } from '../kit/useWidth'
import TakePicture from './TakePicture.vue'
import { counted, upper, type Across, type CutRow } from './useQuestion'

/** A row a cut: its twenty grains where they fall between the two sides, grey where it is too little to matter. */
const chosen = defineModel<string>({ required: true })
const props = defineProps<{ page: Across['page'] }>()

const { cuts } = useCatalogue()
const box = ref<HTMLElement | null>(null)
const svg = ref<SVGSVGElement | null>(null)
const width = useWidth(box)
const narrow = computed(() => width.value < 560)
const RADIUS = computed(() => (narrow.value ? 4.2 : 4.8))
const HEAD = 62
const ROW = computed(() => (narrow.value ? 96 : 70))
const left = computed(() => (narrow.value ? 12 : 176))
const right = computed(() => width.value - 14)
const reach = computed(() => {
  const ends = props.page.rows.flatMap((row) => row.belief?.grains.map((grain) => Math.abs(grain.points)) ?? [])
  return Math.min(5, Math.max(2, Math.ceil(Math.max(0, ...ends))))
})
const at = (points: number) => {
  const held = Math.max(-reach.value, Math.min(reach.value, points))
  return left.value + ((held + reach.value) / (2 * reach.value)) * (right.value - left.value)
}
const numbers = computed(() => Array.from({ length: 2 * reach.value + 1 }, (_, n) => n - reach.value))
const height = computed(() => HEAD + ROW.value * props.page.rows.length + 6)
const heap = (row: CutRow) => {
  const grains = [...(row.belief?.grains ?? [])].sort((a, b) => a.points - b.points)
  const lying = heaped(grains.map((grain) => at(grain.points)), RADIUS.value) // prettier-ignore
  return lying.map((place, n) => ({ ...place, side: grains[n]?.side ?? 'no matter' }))
}
const rows = computed(() =>
  props.page.rows.map((row, n) => ({
    row,
    name: cuts.value.get(row.cut)?.name ?? row.cut,
    base: HEAD + ROW.value * (n + 1) - 14,
    top: HEAD + ROW.value * n,
    grains: heap(row),
    about: [counted(row.counted.cooks, 'cook'), counted(row.counted.cards, 'card')].join(', '),
    sparse: row.counted.cooks < 2,
  })),
)
/** What a row says in a word or two. */
const short = (row: CutRow) =>
  ({ first: props.page.names[0], second: props.page.names[1], 'no matter': 'no matter' })[row.state] ?? 'not known'
</script>

<template>
  <section class="plate rows-plate" aria-label="Cut by cut">
    <div ref="box" class="box">
      <svg ref="svg" :width="width" :height="height" :viewBox="`0 0 ${width} ${height}`" aria-hidden="true">
        <rect
          class="band"
          :x="at(-page.margin)"
          :y="HEAD - 8"
          :width="at(page.margin) - at(-page.margin)"
          :height="height - HEAD + 4"
        />
        <text
          class="side first"
          :x="narrow ? left : at(-page.margin) - 14"
          :y="22"
          :text-anchor="narrow ? 'start' : 'end'"
        >
          ◀ {{ page.names[0] }}{{ narrow ? '' : ' is better' }}
        </text>
        <text v-if="!narrow" class="small" :x="at(0)" :y="22" text-anchor="middle">no matter</text>
        <text
          class="side second"
          :x="narrow ? right : at(page.margin) + 14"
          :y="22"
          :text-anchor="narrow ? 'end' : 'start'"
        >
          {{ page.names[1] }}{{ narrow ? '' : ' is better' }} ▶
        </text>
        <text v-for="n in numbers" :key="n" class="small" :x="at(n)" :y="46" text-anchor="middle">
          {{ Math.abs(n) }}
        </text>
        <g v-for="one in rows" :key="one.row.cut">
          <rect
            v-if="one.row.cut === chosen"
            class="chosen"
            x="2"
            :y="one.top + 2"
            :width="width - 4"
            :height="ROW - 2"
            rx="10"
          />
          <text class="name" :x="narrow ? left : 14" :y="one.top + (narrow ? 22 : 32)">{{ one.name }}</text>
          <text
            class="small"
            :x="narrow ? right : 14"
            :y="one.top + (narrow ? 22 : 52)"
            :text-anchor="narrow ? 'end' : 'start'"
          >
            {{ one.about }}
          </text>
          <line class="base" :class="{ sparse: one.sparse }" :x1="left" :x2="right" :y1="one.base" :y2="one.base" />
          <template v-for="(grain, n) in one.grains" :key="n">
            <rect
              v-if="grain.side === 'second'"
              class="second"
              :x="grain.x - RADIUS + 0.4"
              :y="one.base - grain.y - RADIUS + 0.4"
              :width="2 * RADIUS - 0.8"
              :height="2 * RADIUS - 0.8"
            />
            <circle
              v-else
              :class="grain.side === 'first' ? 'first' : 'none'"
              :cx="grain.x"
              :cy="one.base - grain.y"
              :r="RADIUS - 0.4"
            />
          </template>
          <text v-if="!one.grains.length" class="small" :x="at(0)" :y="one.base - 8" text-anchor="middle">
            votes only, nobody scored both
          </text>
        </g>
      </svg>
      <button
        v-for="one in rows"
        :key="one.row.cut"
        type="button"
        class="over"
        :style="{ top: `${one.top + 2}px`, height: `${ROW - 2}px` }"
        :aria-pressed="one.row.cut === chosen"
        @click="chosen = one.row.cut"
      >
        <span class="sr-only">{{ one.name }}: {{ short(one.row) }}, {{ one.about }}</span>
      </button>
    </div>
    <p class="muted key">
      <span
        >Each grain is one chance in twenty of how much liking differs, in points of nine. Grey: too little to matter.
        Cuts lend each other strength; a cut with one cook leans on the rest.</span
      >
      <TakePicture :of="() => svg" :name="`${page.names[0]} or ${page.names[1]}`" />
    </p>
    <p class="sr-only">{{ upper(page.names[0] ?? '') }} lies on the left, {{ page.names[1] }} on the right.</p>
  </section>
</template>

<style scoped>
.rows-plate {
  padding: var(--s-16) var(--s-20);
}
.box {
  position: relative;
}
svg {
  display: block;
  font-family: var(--body);
}
.band {
  fill: var(--tint);
}
.side {
  font-size: 16px;
  font-weight: 700;
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
.small {
  font-size: 14px;
  fill: var(--muted);
}
.name {
  font-size: 16px;
  font-weight: 700;
  fill: var(--ink);
}
.base {
  stroke: var(--rim);
  stroke-width: 1.5;
}
.base.sparse {
  stroke-dasharray: 3 5;
}
.chosen {
  fill: none;
  stroke: var(--rim);
  stroke-width: 2;
}
.over {
  position: absolute;
  left: 0;
  right: 0;
  border-radius: 10px;
}
.over:hover {
  background: color-mix(in srgb, var(--rim) 7%, transparent);
}
.key {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: var(--s-8) var(--s-20);
  font-size: var(--t-s);
  margin: var(--s-8) 0 0;
}
.key > span:first-child {
  max-width: 62ch;
}
</style>
