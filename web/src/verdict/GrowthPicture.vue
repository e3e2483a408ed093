<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '../api/client'
import { useWidth } from '../kit/useWidth'
import TakePicture from './TakePicture.vue'

/** How belief grew cook by cook: of twenty grains, how many say what, and the line from which on it is named. */
const props = defineProps<{ grown: Schemas['Grown'][]; names: string[]; about: string }>()
const box = ref<HTMLElement | null>(null)
const svg = ref<SVGSVGElement | null>(null)
const width = useWidth(box)
const TOP = 16
const TALL = 168
const LEFT = 34
const right = computed(() => width.value - 126)
const x = (n: number) =>
  props.grown.length < 2
    ? (LEFT + right.value) / 2
    : LEFT + 12 + (n / (props.grown.length - 1)) * (right.value - LEFT - 24)
const y = (chance: number) => TOP + (1 - chance) * TALL
const lines = computed(() => {
  const of = (side: 'first' | 'second' | 'neither', text: string) => {
    const points = props.grown.map((one, n) => ({ x: x(n), y: y(one.chances[side]), named: named(one.state) === side }))
    return { side, text, points, path: points.map((p) => `${p.x},${p.y}`).join(' '), last: points.at(-1)?.y ?? 0 }
  }
  const found = [of('first', props.names[0] ?? ''), of('second', props.names[1] ?? ''), of('neither', 'no matter')]
  // names at the end that would lie on each other are moved apart
  const byHeight = [...found].sort((a, b) => a.last - b.last)
  byHeight.forEach((line, n) => {
    const above = byHeight[n - 1]
    if (above) line.last = Math.max(line.last, above.last + 17)
  })
  return found
})
const named = (state: string) => (state === 'no matter' ? 'neither' : state)
</script>

<template>
  <div ref="box">
    <svg
      ref="svg"
      :width="width"
      :height="TOP + TALL + 30"
      :viewBox="`0 0 ${width} ${TOP + TALL + 30}`"
      role="img"
      :aria-label="about"
    >
      <g v-for="n in [0, 5, 10, 15, 20]" :key="n">
        <line class="rule" :x1="LEFT" :x2="right" :y1="y(n / 20)" :y2="y(n / 20)" />
        <text class="small" :x="LEFT - 8" :y="y(n / 20) + 5" text-anchor="end">{{ n }}</text>
      </g>
      <line class="named" :x1="LEFT" :x2="right" :y1="y(0.9)" :y2="y(0.9)" />
      <g v-for="line in lines" :key="line.side" :class="line.side">
        <polyline :points="line.path" />
        <template v-for="(point, n) in line.points" :key="n">
          <rect
            v-if="line.side === 'second'"
            :x="point.x - 5"
            :y="point.y - 5"
            width="10"
            height="10"
            :class="{ hollow: !point.named }"
          />
          <circle v-else :cx="point.x" :cy="point.y" r="5.4" :class="{ hollow: !point.named }" />
        </template>
        <text class="end" :x="right + 10" :y="line.last + 5">{{ line.text }}</text>
      </g>
      <text v-for="(one, n) in grown" :key="one.key" class="small" :x="x(n)" :y="TOP + TALL + 24" text-anchor="middle">
        {{ n + 1 }}
      </text>
    </svg>
    <p class="muted key">
      <span
        >Grains of twenty, cook by cook. From the broken line on it has a name, with clean cooks and cards enough; full
        marks are named.</span
      >
      <TakePicture :of="() => svg" :name="about" />
    </p>
  </div>
</template>

<style scoped>
svg {
  display: block;
  font-family: var(--body);
}
.rule {
  stroke: var(--line);
}
.named {
  stroke: var(--ink);
  stroke-width: 1.5;
  stroke-dasharray: 6 5;
}
.small {
  font-size: 13px;
  fill: var(--muted);
}
.end {
  font-size: 14px;
  font-weight: 600;
  stroke: none;
}
polyline {
  fill: none;
  stroke-width: 2.5;
}
.first {
  fill: var(--piece-a);
  stroke: var(--piece-a);
}
.second {
  fill: var(--piece-b);
  stroke: var(--piece-b);
}
.neither {
  fill: var(--muted);
  stroke: var(--line-strong);
}
.hollow {
  fill: var(--plate);
  stroke-width: 2;
}
.key {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: var(--s-6) var(--s-20);
  font-size: var(--t-s);
  margin: var(--s-6) 0 0;
}
.key > span:first-child {
  max-width: 58ch;
}
</style>
