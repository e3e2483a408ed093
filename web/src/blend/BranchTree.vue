<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, nextTick, useTemplateRef, watch } from 'vue'
import { api, call } from '../api/client'
import { useCatalogue } from '../api/catalogue'
import GrainDot from '../draw/GrainDot.vue'
import { bandsOfShares } from './bands'
import { layOut, type Node } from './tree'

/** How a blend got here: its revisions and branches, each a heap of its own grains, with what changed in words. */
const props = defineProps<{ id: string; chosen: string }>()
const emit = defineEmits<{ choose: [node: Node] }>()
const { grinds } = useCatalogue()
const { data: nodes } = useQuery({
  queryKey: ['tree', props.id],
  queryFn: () => call(api.GET('/api/blends/{blend_id}/tree', { params: { path: { blend_id: props.id } } })),
})

const COLUMN = 186
const LANE = 136
const DOT = 52
/** Room for the words above a dot; what branches off goes down and never crosses them. */
const WORDS = 74
const placed = computed(() => layOut(nodes.value ?? []))
const x = (column: number) => column * COLUMN + 8
const y = (lane: number) => lane * LANE + WORDS
const width = computed(() => placed.value.length * COLUMN + 20)
const height = computed(() => Math.max(0, ...placed.value.map((item) => item.lane + 1)) * LANE)
const paths = computed(() =>
  placed.value.flatMap((item) => {
    const from = placed.value[item.parent]
    if (!from) return []
    const [x1, y1] = [x(from.column) + DOT, y(from.lane) + DOT / 2]
    const [x2, y2] = [x(item.column), y(item.lane) + DOT / 2]
    const bend = Math.min(90, (x2 - x1) / 2)
    const path =
      y1 === y2
        ? `M${x1} ${y1}H${x2}`
        : `M${x1 - 8} ${y1 + 14}C${x1 + bend * 0.4} ${y2} ${x1 + bend * 0.5} ${y2} ${x1 + bend} ${y2}H${x2}`
    return [{ path, draft: !item.node.kept_at, key: item.node.id }]
  }),
)
const title = (node: Node) => {
  const own = node.blend_id === props.id
  if (node.number === null) return own ? 'now' : `${node.blend_name}, draft`
  return `${own ? '' : `${node.blend_name}, `}${node.number}${node.now ? ', now' : ''}`
}
const bands = (node: Node) => bandsOfShares(node.bands, grinds.value)

// the newest stands at the right: that is where a cook looks first
const scroller = useTemplateRef('scroller')
watch(placed, async () => {
  await nextTick()
  if (scroller.value) scroller.value.scrollLeft = scroller.value.scrollWidth
})
</script>

<template>
  <section class="tree" aria-label="How it got here">
    <h2>How it got here</h2>
    <p v-if="placed.length < 2" class="muted none">
      Nothing kept yet. Keep it as it is now, and every later state stands here beside it.
    </p>
    <div v-else ref="scroller" class="scroller" tabindex="0" role="group" aria-label="Revisions and branches">
      <ol :style="{ width: `${width}px`, height: `${height}px` }">
        <svg :width="width" :height="height" aria-hidden="true">
          <path v-for="line in paths" :key="line.key" :d="line.path" :class="{ draft: line.draft }" />
        </svg>
        <li
          v-for="item in placed"
          :key="item.node.id"
          :style="{ left: `${x(item.column)}px`, top: `${y(item.lane) - WORDS}px` }"
        >
          <button
            type="button"
            :class="{ chosen: item.node.id === chosen, draft: !item.node.kept_at, now: item.node.now }"
            :aria-pressed="item.node.id === chosen"
            @click="emit('choose', item.node)"
          >
            <span class="words">
              <b>{{ title(item.node) }}</b>
              <span v-if="item.node.note" class="note">{{ item.node.note }}</span>
              <span v-if="item.node.corrected" class="note">tables corrected since</span>
              <span v-if="item.node.words" class="moved">{{ item.node.words }}</span>
            </span>
            <span class="dot"><GrainDot :bands="bands(item.node)" :size="DOT - 8" /></span>
          </button>
        </li>
      </ol>
    </div>
  </section>
</template>

<style scoped>
.tree {
  margin-top: var(--s-24);
}
.none {
  margin: var(--s-4) 0 0;
  font-size: var(--t-s);
}
.scroller {
  overflow: auto hidden;
  padding: var(--s-8) var(--s-4) var(--s-4);
  margin: 0 -4px;
}
ol {
  position: relative;
  list-style: none;
  margin: 0;
  padding: 0;
}
svg {
  position: absolute;
  inset: 0;
}
path {
  fill: none;
  stroke: var(--rim);
  stroke-width: 3;
  opacity: 0.55;
  stroke-linecap: round;
}
path.draft {
  stroke-dasharray: 2 8;
}
li {
  position: absolute;
  width: 176px;
}
button {
  display: grid;
  grid-template-rows: 70px 52px;
  gap: var(--s-4);
  text-align: left;
  padding: 0;
  width: 100%;
}
.dot {
  width: 52px;
  height: 52px;
  border-radius: 50%;
  padding: var(--s-2);
  background: var(--plate);
  border: 2px solid var(--line-strong);
}
.now .dot {
  border: 4px solid var(--rim);
  padding: 0;
}
.draft .dot {
  border-style: dashed;
}
.chosen .dot {
  box-shadow: 0 0 0 3px var(--focus);
}
.words {
  display: grid;
  align-content: end;
  font-size: var(--t-xs);
  line-height: 1.25;
  padding-right: var(--s-8);
}
.words b {
  font-size: var(--t-s);
}
.words b,
.note {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.moved {
  display: -webkit-box;
  -webkit-box-orient: vertical;
  -webkit-line-clamp: 2;
  line-clamp: 2;
  overflow: hidden;
}
.note {
  color: var(--muted);
}
</style>
