<script setup lang="ts">
import { mdiChevronDown, mdiChevronUp, mdiDragVertical } from '@mdi/js'
import { computed } from 'vue'
import type { Schemas } from '../api/client'
import { useCatalogue } from '../ui/catalogue'
import OldMark from '../ui/OldMark.vue'
import { usePreferences } from '../ui/preferences'
import { percent } from '../ui/units'

/** One layer at a glance: what, how much, and the salt so far; moved by its grip or the arrow keys, opened by a tap. */
const props = defineProps<{
  layer: Schemas['LayerDocument']
  name: string
  colour: string
  reading: Schemas['LayerShown'] | null
  at: number
  last: boolean
  open: boolean
  wrong?: string
  old?: boolean
}>()
const emit = defineEmits<{ toggle: []; move: [at: number, to: number] }>()
const { catalogue } = useCatalogue()
const { show } = usePreferences()
const kind = computed(() => catalogue.value?.layer_kinds.find((found) => found.key === props.layer.kind))
const amount = computed(() => {
  const dose = props.reading?.dose
  if (!dose) return ''
  return dose.unit === 'ml' ? show.value.volume(dose.value) : show.value.dose(dose.value)
})
const about = computed(() => {
  const dial = props.layer.dose || (props.reading ? String(Number(props.reading.dose_setting.toPrecision(3))) : '')
  const rest = props.layer.dose || props.layer.kind === 'drippings' ? '' : 'the rest: '
  const often = kind.value?.each_time && (props.layer.times ?? 1) > 1 ? ` × ${props.layer.times}` : ''
  const hold = kind.value?.held ? `, ${props.layer.hold}` : ''
  return `${props.layer.kind} · ${rest}${dial} ${kind.value?.unit ?? ''}${often}${hold}`
})
function drop(event: DragEvent) {
  const from = Number(event.dataTransfer?.getData('text/plain'))
  if (Number.isInteger(from)) emit('move', from, props.at)
}
function keyed(event: KeyboardEvent) {
  const by = { ArrowUp: -1, ArrowDown: 1 }[event.key]
  if (!by) return
  event.preventDefault()
  emit('move', props.at, props.at + by)
}
</script>

<template>
  <div class="layer" :class="{ open, wrong }" @dragover.prevent @drop.prevent="drop">
    <button
      type="button"
      class="grip"
      draggable="true"
      :aria-label="`Move ${name}: arrow keys`"
      @dragstart="$event.dataTransfer?.setData('text/plain', String(at))"
      @keydown="keyed"
    >
      <v-icon :icon="mdiDragVertical" size="20" />
    </button>
    <i class="swatch" :style="{ background: colour }" aria-hidden="true" />
    <button type="button" class="what" :aria-expanded="open" @click="$emit('toggle')">
      <b>{{ name }}</b>
      <span class="muted">{{ about }}</span>
      <span v-if="wrong" class="says">{{ wrong }}</span>
      <span v-else-if="reading?.note" class="note">{{ reading.note }}</span>
    </button>
    <span class="amount">
      <b>{{ amount }}</b>
      <OldMark v-if="old && reading" />
      <span v-if="reading" class="muted">{{ percent(reading.so_far) }}</span>
    </span>
    <span class="steps">
      <button type="button" :disabled="at === 0" :aria-label="`${name} up`" @click="$emit('move', at, at - 1)">
        <v-icon :icon="mdiChevronUp" size="18" />
      </button>
      <button type="button" :disabled="last" :aria-label="`${name} down`" @click="$emit('move', at, at + 1)">
        <v-icon :icon="mdiChevronDown" size="18" />
      </button>
    </span>
  </div>
</template>

<style scoped>
.layer {
  display: grid;
  grid-template-columns: 22px 12px minmax(0, 1fr) auto 24px;
  gap: 8px;
  align-items: center;
  background: var(--plate);
  border-radius: 14px;
  padding: 8px 8px 8px 6px;
}
.open {
  border-radius: 14px 14px 0 0;
}
.wrong {
  box-shadow: inset 0 0 0 1.5px var(--stop);
}
.grip {
  cursor: grab;
  color: var(--muted);
  min-height: 36px;
}
.swatch {
  align-self: stretch;
  border-radius: 6px;
  min-height: 40px;
}
.what {
  display: grid;
  text-align: left;
  line-height: 1.3;
  min-height: 40px;
}
.what span {
  font-size: 13px;
}
.what .says {
  color: var(--stop);
}
.what .note {
  color: var(--caution);
}
.amount {
  display: grid;
  text-align: right;
  line-height: 1.25;
  font-variant-numeric: tabular-nums;
}
.amount span {
  font-size: 13px;
}
.steps {
  display: grid;
}
.steps button {
  color: var(--muted);
  min-height: 20px;
}
.steps button:disabled {
  opacity: 0.3;
}
@media (max-width: 720px) {
  .layer {
    grid-template-columns: 12px minmax(0, 1fr) auto 44px;
  }
  .grip {
    display: none;
  }
  .steps button {
    min-height: 44px;
    min-width: 44px;
  }
}
</style>
