<script setup lang="ts">
import { computed, ref, useTemplateRef } from 'vue'
import type { Schemas } from '../api/client'
import PieceBadge from '../ui/PieceBadge.vue'
import { useCatalogue } from '../ui/catalogue'
import Field from '../ui/Field.vue'
import OldMark from '../ui/OldMark.vue'
import { percent } from '../ui/units'
import Why from '../ui/Why.vue'
import { layerColour, layerName } from './layers'
import type { Coat } from './useCoat'

/** The salt ledger: a bar for each piece by layer against the zones, the target to drag, a serving, the thin end. */
const props = defineProps<{ coat: Coat; blends: Schemas['BlendRow'][] }>()
const { catalogue, grinds } = useCatalogue()
const bars = useTemplateRef('bars')
const rows = computed(() =>
  (props.coat.doc.value?.pieces ?? []).flatMap((piece, at) => {
    const reading = props.coat.reading.value?.[at]
    if (!reading) return []
    const old = Object.keys(props.coat.errorsOf(at)).length > 0
    const layers = reading.layers.map((layer, n) => ({
      value: layer?.salt.value ?? 0,
      colour: piece.layers[n] ? layerColour(piece.layers[n], props.blends, grinds.value) : '#999',
      name: piece.layers[n] ? layerName(piece.layers[n], props.blends, grinds.value) : (layer?.kind ?? ''),
    }))
    return [{ piece, at, reading, layers, old }]
  }),
)
const mine = computed(() => rows.value.find((row) => row.at === props.coat.current.value))
const full = computed(() => Math.max(2.8, ...rows.value.map((row) => row.reading.salt.value * 1.12)))
const at = (value: number) => `${Math.min(100, (value / full.value) * 100)}%`
const zones = computed(() => (catalogue.value?.zones ?? []).filter((zone) => zone.below_percent !== null))

const target = computed({
  get: () => props.coat.piece.value?.target ?? '',
  set: (typed: string) => props.coat.aimAt(typed),
})
const error = computed(() => props.coat.errorsOf(props.coat.current.value).target)
const aimed = computed(() => mine.value?.reading.target ?? null)
const ways = computed(() => props.coat.piece.value?.layers ?? [])
const way = ref<number | null>(null)
/** The layer that gives way: as chosen, else the one that usually does; none where one takes the rest already. */
const chosen = computed(() => {
  const usual = mine.value?.reading.gives ?? null
  return usual !== null && way.value !== null && way.value < ways.value.length ? way.value : usual
})
const dragging = ref(false)
function drag(event: PointerEvent) {
  const frame = bars.value?.[0]?.getBoundingClientRect()
  if (!dragging.value || !frame) return
  const value = ((event.clientX - frame.left) / frame.width) * full.value
  target.value = Math.min(4, Math.max(0.1, value)).toFixed(2)
}
function grab(event: PointerEvent) {
  dragging.value = true
  props.coat.history.hold()
  ;(event.currentTarget as HTMLElement).setPointerCapture(event.pointerId)
}
function drop() {
  if (!dragging.value) return
  dragging.value = false
  props.coat.history.release()
}
function keyed(event: KeyboardEvent) {
  const by = { ArrowLeft: -0.05, ArrowRight: 0.05 }[event.key]
  if (by === undefined || aimed.value === null) return
  event.preventDefault()
  // from what is typed, as keys come faster than answers
  target.value = Math.min(4, Math.max(0.1, (parseFloat(target.value) || aimed.value) + by)).toFixed(2)
}
</script>

<template>
  <section class="plate ledger" aria-label="Salt ledger">
    <div v-for="row in rows" :key="row.piece.letter" class="row" :class="{ own: row.at === coat.current.value }">
      <p class="who"><PieceBadge :letter="row.piece.letter" /> {{ row.piece.name }}</p>
      <div ref="bars" class="bar">
        <i
          v-for="(layer, n) in row.layers"
          :key="n"
          :style="{ width: at(layer.value), background: layer.colour }"
          :title="`${layer.name}: ${percent(layer.value)}`"
        />
        <template v-if="row.at === coat.current.value">
          <span v-for="zone in zones" :key="zone.name" class="edge" :style="{ left: at(zone.below_percent!) }"
            ><em>{{ zone.below_percent }}</em></span
          >
        </template>
        <span
          v-if="row.reading.salt.low !== null && row.reading.salt.high !== null"
          class="spread"
          :style="{
            left: at(row.reading.salt.low),
            width: `calc(${at(row.reading.salt.high)} - ${at(row.reading.salt.low)})`,
          }"
        />
        <button
          v-if="row.at === coat.current.value && aimed !== null"
          type="button"
          class="aim"
          role="slider"
          aria-label="Salt wanted in all"
          aria-valuemin="0.1"
          aria-valuemax="4"
          :aria-valuenow="aimed"
          :aria-valuetext="percent(aimed)"
          :style="{ left: at(aimed) }"
          @pointerdown="grab"
          @pointermove="drag"
          @pointerup="drop"
          @pointercancel="drop"
          @keydown="keyed"
        />
      </div>
      <p class="sum">
        <b class="big"
          ><Why :figure="row.reading.salt" :of="`Salt on ${row.piece.letter}`">{{
            percent(row.reading.salt.value)
          }}</Why></b
        >
        <span>{{ row.reading.zone }}</span>
        <OldMark v-if="row.old" />
      </p>
    </div>
    <div v-if="mine" class="about">
      <p>
        Thin end
        <Why :figure="mine.reading.thin" of="Salt of the thin end">{{ percent(mine.reading.thin.value) }}</Why>. A
        serving, {{ mine.reading.servings.value.toFixed(1) }} of them:
        <Why :figure="mine.reading.sodium" of="Sodium a serving"
          >{{ Math.round(mine.reading.sodium.value) }} mg sodium</Why
        >,
        <Why :figure="mine.reading.sugar" of="Sugar a serving">{{ mine.reading.sugar.value.toFixed(1) }} g sugar</Why>.
      </p>
      <div class="wanted">
        <Field v-model="target" label="Salt wanted, %" placeholder="1.5" :error="error" class="percent" />
        <template v-if="aimed !== null && chosen !== null">
          <label>
            <span>Gives way</span>
            <select :value="chosen" @change="way = Number(($event.target as HTMLSelectElement).value)">
              <template v-for="(layer, n) in ways" :key="n">
                <option v-if="layer.kind !== 'drippings'" :value="n">
                  {{ layer.kind }}, {{ layerName(layer, blends, grinds) }}
                </option>
              </template>
            </select>
          </label>
          <v-btn class="solid" @click="coat.giveWay(chosen)">Meet {{ percent(aimed) }}</v-btn>
        </template>
      </div>
    </div>
  </section>
</template>

<style scoped>
.ledger {
  padding: 18px 22px;
  display: grid;
  gap: 12px;
}
.row {
  display: grid;
  grid-template-columns: 176px minmax(0, 1fr) 158px;
  gap: 16px;
  align-items: center;
}
p {
  margin: 0;
  font-size: 15px;
}
.who {
  display: flex;
  gap: 8px;
  align-items: center;
  line-height: 1.2;
}
.bar {
  position: relative;
  height: 16px;
  background: var(--tint);
  border-radius: 6px;
  display: flex;
}
.own .bar {
  height: 30px;
  margin-bottom: 22px;
}
.bar i {
  height: 100%;
}
.bar i:first-child {
  border-radius: 6px 0 0 6px;
}
.edge {
  position: absolute;
  top: -3px;
  bottom: -3px;
  border-left: 1.5px solid var(--line-strong);
}
.edge em {
  position: absolute;
  bottom: -21px;
  transform: translateX(-50%);
  font-style: normal;
  font-size: 13px;
  color: var(--muted);
}
.spread {
  position: absolute;
  top: calc(50% - 2px);
  height: 4px;
  background: var(--ink);
  box-shadow: 0 0 0 1px var(--plate);
  border-radius: 2px;
}
.aim {
  position: absolute;
  top: -9px;
  bottom: -9px;
  width: 28px;
  margin-left: -14px;
  cursor: ew-resize;
  touch-action: none;
}
.aim::before {
  content: '';
  position: absolute;
  inset: 0 12px;
  background: var(--cobalt);
  border-radius: 2px;
  box-shadow: 0 0 0 2px var(--plate);
}
.aim::after {
  content: '';
  position: absolute;
  left: 7px;
  top: -5px;
  border: 7px solid transparent;
  border-top: 9px solid var(--cobalt);
}
.sum {
  display: flex;
  flex-wrap: wrap;
  gap: 0 8px;
  align-items: baseline;
}
.own .big {
  font-size: 26px;
}
.about {
  display: flex;
  flex-wrap: wrap;
  gap: 12px 26px;
  justify-content: space-between;
  align-items: end;
}
.wanted {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
  align-items: end;
}
.percent {
  width: 122px;
}
label span {
  font-size: 13px;
  color: var(--muted);
  display: block;
  padding-bottom: 4px;
}
select {
  max-width: 230px;
}
@media (max-width: 720px) {
  .row {
    grid-template-columns: minmax(0, 1fr);
    gap: 6px;
  }
  .own .bar {
    margin-top: 8px;
  }
  .aim {
    width: 44px;
    margin-left: -22px;
  }
  .aim::before {
    inset: 0 20px;
  }
  .aim::after {
    left: 15px;
  }
}
</style>
