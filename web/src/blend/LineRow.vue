<script setup lang="ts">
import { computed, useId, useTemplateRef } from 'vue'
import type { Schemas } from '../api/client'
import Choice from '../kit/Choice.vue'
import { usePreferences } from '../app/preferences'
import { percent } from '../kit/units'
import Why from '../kit/Why.vue'
import LineActs from './LineActs.vue'
import type { LineDoc } from './useBlend'

/** One line of a blend: parts as typed, by spoon or scale, its lock, and what they come to. */
const props = defineProps<{
  line: LineDoc
  at: number
  name: string
  grind: string
  colours: string[]
  reading: Schemas['LineShown'] | null
  written?: 'parts' | 'percent' | 'relative'
  isBase?: boolean
  pending?: string
  error?: string
  notice?: string
  open?: boolean
}>()
const emit = defineEmits<{
  parts: [text: string]
  basis: [to: 'spoon' | 'scale']
  lock: [to: LineDoc['lock']]
  nudge: [up: boolean]
  move: [by: number]
  enter: []
  more: []
  remove: []
}>()

const { show } = usePreferences()
const full = computed(() => (props.grind ? `${props.name}, ${props.grind}` : props.name))
const parts = computed({ get: () => props.pending ?? props.line.parts, set: (text) => emit('parts', text) })
const basis = computed({ get: () => props.line.basis, set: (to) => emit('basis', to) })
const swatch = computed(() => {
  const [one, ...more] = props.colours
  if (!more.length) return { background: one ?? '#888' }
  const step = 100 / props.colours.length
  const stops = props.colours.map((colour, at) => `${colour} ${at * step}% ${(at + 1) * step}%`)
  return { background: `linear-gradient(90deg, ${stops.join(', ')})` }
})
/** How it was written where it came from, and how far an amount by eye may be off. */
const about = computed(() =>
  [props.line.said && `“${props.line.said}”`, props.line.error && `±${props.line.error} %`].filter(Boolean).join(' '),
)

function keyed(event: KeyboardEvent) {
  const way = { ArrowUp: -1, ArrowDown: 1 }[event.key]
  if (way !== undefined) {
    event.preventDefault()
    if (event.altKey) emit('move', way)
    else emit('nudge', way < 0)
  } else if (event.key === 'Enter') {
    event.preventDefault()
    emit('enter')
  }
}
const id = useId()
const input = useTemplateRef('input')
defineExpose({ focus: () => input.value?.select(), stay: () => input.value?.focus() })
</script>

<template>
  <div class="line" :class="{ wrong: error, open }">
    <span class="who" title="Drag to reorder">
      <i class="swatch" :style="swatch" aria-hidden="true" /><span
        >{{ name }}<small v-if="grind || about">{{ [grind, about].filter(Boolean).join(', ') }}</small></span
      ></span
    >
    <input
      :id="id"
      ref="input"
      v-model="parts"
      class="parts"
      inputmode="text"
      autocomplete="off"
      :readonly="isBase"
      :aria-label="`Parts of ${full}`"
      :aria-invalid="!!error"
      :aria-describedby="error ? `${id}-says` : undefined"
      @keydown="keyed"
    />
    <span v-if="written === 'percent'" class="basis muted">%</span>
    <Choice
      v-else
      v-model="basis"
      :label="`${full} goes by`"
      hidden-label
      class="basis"
      :options="[
        { value: 'spoon', text: 'spoon' },
        { value: 'scale', text: 'scale' },
      ]"
    />
    <template v-if="reading">
      <span class="n share">
        <Why :figure="reading.share" :of="`Share of ${full}`">{{ percent(reading.share.value) }}</Why>
      </span>
      <span class="n weigh">
        <Why :figure="reading.mass" :of="`Weight of ${full}`"
          ><b>{{ show.mass(reading.mass.value) }}</b></Why
        >
      </span>
      <span class="spoons">
        <Why :figure="reading.spoons.volume" :of="`Spoons of ${full}`">{{ reading.spoons.text }}</Why>
      </span>
    </template>
    <template v-else
      ><span class="n share">…</span><span class="n weigh">…</span><span class="spoons">…</span></template
    >
    <LineActs
      :line="line"
      :full="full"
      :open="open"
      class="acts"
      @lock="emit('lock', $event)"
      @more="emit('more')"
      @remove="emit('remove')"
    />
    <p v-if="error" :id="`${id}-says`" class="says" role="alert">{{ error }}</p>
    <p v-else-if="notice" class="notice">{{ notice }} <slot name="notice" /></p>
    <div v-if="open" class="more"><slot /></div>
  </div>
</template>

<style scoped>
.line {
  display: grid;
  grid-template-columns: var(--line-columns);
  gap: var(--s-2) var(--s-10);
  align-items: center;
  border-top: 1px solid var(--line);
  padding: var(--s-4) 0;
  min-height: 45px;
}
.who {
  display: flex;
  align-items: center;
  gap: var(--s-10);
  font-weight: 600;
  line-height: 1.2;
  cursor: grab;
}
.swatch {
  width: 16px;
  height: 16px;
  border-radius: 5px;
  border: 1.5px solid var(--line-strong);
  flex: none;
}
small {
  display: block;
  font-weight: 400;
  font-size: var(--t-xs);
  color: var(--muted);
}
.parts {
  text-align: right;
  font-weight: 600;
}
.parts:read-only {
  background: transparent;
}
.wrong .parts {
  border-color: var(--stop);
}
.n {
  text-align: right;
}
.spoons {
  font-size: var(--t-m);
  min-width: 0;
  line-height: 1.25;
}
.spoons :deep(.why) {
  white-space: normal;
  text-align: left;
}
.basis :deep(.options) {
  flex-wrap: nowrap;
}
.basis :deep(label) {
  padding: var(--s-4) var(--s-6);
  font-size: var(--t-xs);
}
.says,
.notice,
.more {
  grid-column: 1 / -1;
}
.says {
  color: var(--stop);
  font-size: var(--t-s);
  margin: 0;
}
.notice {
  color: var(--caution);
  font-size: var(--t-s);
  margin: 0;
}
.more {
  background: var(--tint);
  border-radius: 12px;
  padding: var(--s-12) var(--s-14);
  margin: var(--s-4) 0 var(--s-6);
}
@media (max-width: 720px) {
  .line {
    grid-template-columns: 84px 1fr 1fr;
    padding: var(--s-10) 0;
    gap: var(--s-8) var(--s-12);
  }
  .who {
    grid-column: 1 / 3;
    grid-row: 1;
  }
  .basis {
    grid-column: 2 / -1;
  }
  .share,
  .weigh {
    text-align: left;
  }
  .spoons {
    text-align: right;
  }
}
</style>
