<script setup lang="ts">
import { mdiChevronDown, mdiChevronUp, mdiDragVertical } from '@mdi/js'
import { computed } from 'vue'
import type { Schemas } from '../api/client'
import { useCatalogue } from '../api/catalogue'
import GrainMix from '../draw/GrainMix.vue'
import OldMark from '../kit/OldMark.vue'
import { usePreferences } from '../app/preferences'
import { percent } from '../kit/units'
import { sure } from '../kit/sure'
import { ofTheBath } from './layers'

/** One layer as a band of its own grains: what, how much, what it adds; moved by its grip or keys, opened by a tap. */
const props = defineProps<{
  layer: Schemas['LayerDocument']
  name: string
  colour: string
  mark?: Schemas['LayerMarkOut']
  reading: Schemas['LayerShown'] | null
  at: number
  last: boolean
  open: boolean
  wrong?: string
  old?: boolean
}>()
const emit = defineEmits<{ toggle: []; move: [at: number, to: number] }>()
const { catalogue, grinds } = useCatalogue()
const { show } = usePreferences()
const kind = computed(() => catalogue.value?.layer_kinds.find((found) => found.key === props.layer.kind))
const amount = computed(() => {
  const dose = props.reading?.dose
  if (!dose) return ''
  return dose.unit === 'ml' ? show.value.volume(dose.value) : show.value.dose(dose.value)
})
/** Liquids are measured in cups as they are; all else goes by the spoon where that is how a cook measures. */
const spoons = computed(() => (props.reading?.dose.unit === 'ml' ? '' : (props.reading?.spoons.text ?? '')))
const about = computed(() => {
  const { reading, layer } = props
  const unit = kind.value?.unit ?? ''
  const said = !!props.mark?.said
  const asTyped = layer.dose && !said && !show.value.spoonsFirst ? `${layer.dose} ${unit}` : ''
  const set = asTyped || (reading && !ofTheBath(layer) ? show.value.setting(reading.dose_setting, unit) : '')
  const dial = said ? [layer.dose, set].filter(Boolean).join(', ') : set
  const takesRest = !layer.dose && layer.kind !== 'drippings' && !ofTheBath(layer)
  const rest = takesRest ? 'the rest: ' : ''
  const often = kind.value?.each_time && (props.layer.times ?? 1) > 1 ? ` × ${props.layer.times}` : ''
  const hold = kind.value?.held ? `, ${props.layer.hold}` : ''
  return `${[props.layer.kind, `${rest}${dial}`].filter(Boolean).join(' · ')}${often}${hold}`
})
const blend = computed(() =>
  (props.mark?.grinds ?? []).flatMap((key, n) => {
    const of = grinds.value.get(key)
    return of ? [{ of, share: sure(props.mark?.shares[n]) }] : []
  }),
)
function keyed(event: KeyboardEvent) {
  // up is outwards, which is later
  const by = { ArrowUp: 1, ArrowDown: -1 }[event.key]
  if (!by) return
  event.preventDefault()
  emit('move', props.at, props.at + by)
}
</script>

<template>
  <div class="layer" :class="{ open, wrong }">
    <button type="button" class="grip" :aria-label="`Move ${name}: arrow keys`" @keydown="keyed">
      <v-icon :icon="mdiDragVertical" size="20" />
    </button>
    <GrainMix v-if="blend.length" class="band" :blend="blend" :seed="name" />
    <i v-else class="band" :style="{ background: colour }" aria-hidden="true" />
    <button type="button" class="what" :aria-expanded="open" @click="$emit('toggle')">
      <b>{{ name }}</b>
      <span class="muted">{{ about }}</span>
      <span v-if="wrong" class="says">{{ wrong }}</span>
      <span v-else-if="reading?.note" class="note">{{ reading.note }}</span>
    </button>
    <span class="amount">
      <b>{{ spoons && show.spoonsFirst ? spoons : amount }}</b>
      <OldMark v-if="old && reading" />
      <span v-if="reading" class="muted">{{ show.spoonsFirst ? (spoons ? amount : '') : spoons }}</span>
    </span>
    <span class="adds">{{ reading ? `+${percent(reading.salt.value)}` : '' }}</span>
    <span class="steps">
      <button type="button" :disabled="last" :aria-label="`${name} outwards`" @click="$emit('move', at, at + 1)">
        <v-icon :icon="mdiChevronUp" size="18" />
      </button>
      <button type="button" :disabled="at === 0" :aria-label="`${name} inwards`" @click="$emit('move', at, at - 1)">
        <v-icon :icon="mdiChevronDown" size="18" />
      </button>
    </span>
  </div>
</template>

<style scoped>
.layer {
  display: grid;
  grid-template-columns: 32px minmax(90px, 260px) minmax(0, 1fr) minmax(84px, auto) 74px 24px;
  gap: var(--s-10);
  align-items: center;
  padding: var(--s-4) 0;
}
.wrong {
  box-shadow: inset 3px 0 0 var(--stop);
}
.grip {
  cursor: grab;
  color: var(--muted);
  min-height: 40px;
  touch-action: none;
}
.band {
  align-self: stretch;
  border-radius: 8px;
  min-height: 40px;
}
.what {
  display: grid;
  text-align: left;
  line-height: 1.3;
  min-height: 40px;
}
.what span {
  font-size: var(--t-xs);
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
}
.amount span {
  font-size: var(--t-xs);
}
.adds {
  text-align: right;
  white-space: nowrap;
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
    grid-template-columns: 34px minmax(0, 1fr) auto 44px;
  }
  .grip {
    display: none;
  }
  .adds {
    grid-column: 3;
    grid-row: 2;
    font-size: var(--t-xs);
  }
  .band {
    grid-row: span 2;
  }
  .what {
    grid-row: span 2;
  }
  .steps {
    grid-row: span 2;
    grid-column: 4;
  }
  .steps button {
    min-height: 44px;
    min-width: 44px;
  }
}
</style>
