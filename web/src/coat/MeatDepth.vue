<script setup lang="ts">
import { computed } from 'vue'
import OldMark from '../kit/OldMark.vue'
import PieceBadge from '../draw/PieceBadge.vue'
import { usePreferences } from '../app/preferences'
import { duration } from '../kit/units'
import Why from '../kit/Why.vue'
import SaltCurves, { type Cored } from './SaltCurves.vue'
import { coatHere } from './useCoat'

/** The meat under the layers: how far salt has got at any hour of the hold and on the fire, in a picture and in words. */
const coat = coatHere()
const { show } = usePreferences()
/** The core samples to lay over each other: the open piece's, and of the compared ones the other. */
const cores = computed<Cored[]>(() =>
  (coat.doc.value?.pieces ?? []).flatMap((other, at) => {
    const sample = coat.reading.value?.[at]?.sample
    const shown = at === coat.current.value || (other.tasted && coat.piece.value?.tasted)
    return sample && shown ? [{ letter: other.letter, name: other.name, sample }] : []
  }),
)
const own = computed(() => coat.piece.value?.letter ?? '')
const mine = computed(() => cores.value.find((core) => core.letter === own.value) ?? cores.value[0])
const held = computed(() => Math.max(...cores.value.map((core) => core.sample.whole_s)))
const whole = computed(() => Math.max(...cores.value.map((core) => core.sample.whole_s + core.sample.fire_s)))
const seconds = computed(() => Math.min(coat.atS.value ?? whole.value, whole.value))
const hours = computed({
  get: () => seconds.value,
  set: (value: number) => (coat.atS.value = value >= whole.value ? null : value),
})
/** Where of its holds and its fire the open piece is, in words. */
const reached = computed(() => {
  if (!mine.value) return ''
  const { time_s, whole_s, fire_s } = mine.value.sample
  const left = time_s - whole_s
  if (left > 0) return `${duration(left)} after it went on the fire`
  return whole_s || !fire_s ? `at ${duration(time_s)} of ${duration(whole_s)}` : 'as it goes on the fire'
})
const old = computed(() => Object.keys(coat.errorsOf(coat.current.value)).length > 0)
</script>

<template>
  <section v-if="mine" class="depth" aria-label="From crust to centre">
    <SaltCurves :cores="cores" :own="own" />
    <div class="words">
      <p class="reach">
        {{ reached }}: salt reaches
        <b
          ><Why :figure="mine.sample.reach" of="Reach of the salt">{{ show.depth(mine.sample.reach.value) }}</Why></b
        >
        <OldMark v-if="old" />
      </p>
      <p>{{ show.sentence(mine.sample.says.join(' ')) }}</p>
      <p class="key">
        <span v-for="core in cores" :key="core.letter"><PieceBadge :letter="core.letter" /> {{ core.name }}</span>
        <span v-if="cores.some((core) => core.sample.least.length)" class="muted"
          ><svg class="swatch" viewBox="0 0 26 8" aria-hidden="true"><path class="least" d="M0 4h26" /></svg> the tenth
          the needle reached least</span
        >
      </p>
      <p class="muted">
        Bands: diffusivity halved and doubled. The centre lies
        {{ show.length(mine.sample.depths_cm.at(-1)!) }} deep.
      </p>
      <label class="time">
        <span class="muted" aria-hidden="true">put on</span>
        <span class="sr-only">{{ whole > held ? 'Time of the hold and the fire' : 'Time of the hold' }}</span>
        <span v-if="whole > held" class="muted" aria-hidden="true">to the fire after {{ duration(held) }}</span>
        <span class="muted" aria-hidden="true">{{
          whole > held ? `${duration(whole - held)} more, carved` : `${duration(whole)}, to the fire`
        }}</span>
        <input
          v-model.number="hours"
          type="range"
          min="0"
          :max="whole"
          step="900"
          :aria-valuetext="duration(seconds)"
        />
      </label>
    </div>
  </section>
  <p v-else-if="coat.cored.value" class="muted">
    {{
      coat.piece.value?.layers.length
        ? 'No layer is held on bare meat, so no salt moves in yet.'
        : 'Put a layer on, and here is how far its salt gets.'
    }}
  </p>
</template>

<style scoped>
.depth {
  scroll-margin-top: 56px;
  display: grid;
  grid-template-columns: minmax(0, 340px) minmax(0, 1fr);
  gap: var(--s-20);
}
.words {
  display: grid;
  gap: var(--s-8);
  align-content: start;
}
p {
  margin: 0;
  font-size: var(--t-s);
}
.reach {
  font-size: var(--t-l);
}
.key {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s-4) var(--s-16);
  align-items: center;
}
.swatch {
  width: 26px;
  height: 8px;
  margin-right: var(--s-4);
  background: #ecc9c1;
}
.least {
  fill: none;
  stroke: var(--salt);
  stroke-width: 1.6;
  stroke-dasharray: 7 4;
}
.time {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  font-size: var(--t-xs);
}
.time input[type='range'] {
  width: 100%;
  accent-color: var(--cobalt);
  min-height: 28px;
  padding: 0;
  background: none;
}
@media (max-width: 720px) {
  .depth {
    grid-template-columns: minmax(0, 1fr);
  }
  .time input[type='range'] {
    min-height: 44px;
  }
}
</style>
