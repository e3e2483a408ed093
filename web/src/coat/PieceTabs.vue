<script setup lang="ts">
import { within, type Schemas } from '../api/client'
import PieceBadge from '../draw/PieceBadge.vue'
import { useCatalogue } from '../api/catalogue'
import OldMark from '../kit/OldMark.vue'
import { percent } from '../kit/units'
import type { Reading } from './reading'

/** The pieces on the board: one is open. */
const props = defineProps<{
  pieces: Schemas['PieceDocument'][]
  readings: (Reading | null)[]
  errors: Record<string, string>
}>()
const current = defineModel<number>({ required: true })
defineEmits<{ add: [] }>()
const { cuts } = useCatalogue()
const wrong = (at: number) => Object.keys(within(props.errors, `pieces.${at}.`)).length
</script>

<template>
  <div class="tabs" role="group" aria-label="Pieces on the board">
    <button
      v-for="(piece, at) in pieces"
      :key="piece.letter"
      type="button"
      :aria-pressed="current === at"
      :class="{ on: current === at }"
      @click="current = at"
    >
      <PieceBadge :letter="piece.letter" />
      <span>
        <b>{{ piece.name }}</b>
        <small>{{ cuts.get(piece.cut)?.name ?? 'a cut that is gone' }}, {{ piece.mass }}</small>
      </span>
      <em v-if="readings[at]">{{ percent(readings[at]!.salt.value) }}</em>
      <OldMark v-if="wrong(at) && readings[at]" />
      <strong v-if="wrong(at)" class="wrong" :title="`${wrong(at)} of its fields could not be read`"
        >{{ wrong(at) }}?</strong
      >
    </button>
    <button type="button" class="more" @click="$emit('add')">Add a piece</button>
  </div>
</template>

<style scoped>
.tabs {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s-8);
  margin-bottom: var(--s-16);
}
button {
  display: flex;
  gap: var(--s-10);
  align-items: center;
  text-align: left;
  background: var(--tint);
  border-radius: 14px;
  padding: var(--s-8) var(--s-14);
  min-height: 48px;
  line-height: 1.2;
}
.on {
  background: var(--plate);
  box-shadow: 0 0 0 2px var(--rim);
}
small {
  display: block;
  font-size: var(--t-xs);
  color: var(--muted);
}
em {
  white-space: nowrap;
  font-style: normal;
  font-variant-numeric: tabular-nums;
}
.wrong {
  color: var(--plate);
  background: var(--stop);
  border-radius: 10px;
  padding: 1px var(--s-8);
  font-size: var(--t-s);
}
.more {
  color: var(--link);
  background: none;
  text-decoration: underline;
  text-underline-offset: 3px;
}
</style>
