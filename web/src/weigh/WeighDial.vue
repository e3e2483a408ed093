<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../api/client'
import { bandsOfShares } from '../blend/bands'
import { useCatalogue } from '../api/catalogue'
import GrainStrip from '../draw/GrainStrip.vue'

/** The ingredient that is on, what the scale shows of it, and how far there is to go. */
const props = defineProps<{
  line: Schemas['BatchLineOut']
  reading: number | null
  scale: Schemas['ScaleNow'] | null
  stands: 'under' | 'met' | 'over'
  spooning: boolean
  digits: number
  compact?: boolean
  tiny?: boolean
}>()
const { grinds } = useCatalogue()
const bands = computed(() => bandsOfShares(props.line.bands, grinds.value))
const poured = computed(() => props.line.poured_g + (props.reading ?? 0))
const left = computed(() => props.line.wanted_g - poured.value)
// the bar ends a little beyond what is wanted, so that too much can be seen
const full = computed(() => props.line.wanted_g * 1.25)
const along = (grams: number) => `${Math.min(100, Math.max(0, (grams / full.value) * 100))}%`
/** Without a scale it goes by spoons, and the grams they stand for come second. */
const without = computed(() => props.scale?.state === 'none' && !props.spooning)
const words = computed(() => {
  const far = Math.abs(left.value).toFixed(props.digits)
  if (props.scale?.overload) return 'Too heavy for this scale: take something off it.'
  if (!props.scale) return 'Waiting for the server.'
  if (without.value) return props.line.poured_g ? 'Put the rest in, then tap.' : 'Put it in level, then tap.'
  if (props.scale.state === 'lost')
    return `The scale has been silent for ${Math.round(props.scale.silent_s)} s. What was noted is safe; go on by hand, or wait for it.`
  if (props.spooning) return `Take ${far} g of it out while it lies on top.`
  if (props.stands === 'over') return `${far} g too much`
  if (props.stands === 'met') return 'There. Stop.'
  if (props.tiny && !poured.value) return `Hardly more than this scale shows: take ${props.line.spoons}.`
  return `${far} g to go`
})
</script>

<template>
  <section class="answer dial" :class="[stands, { compact }]" aria-label="On the scale now">
    <p class="name">{{ line.name }}</p>
    <p v-if="without" class="numbers">
      <span class="big spoons settled">{{ line.poured_g ? 'the rest' : line.spoons }}</span>
      <span class="of">about {{ (line.wanted_g - line.poured_g).toFixed(digits) }} g</span>
    </p>
    <p v-else class="numbers">
      <span class="big" :class="{ settled: scale?.settled }">{{
        scale?.overload ? '– –' : reading === null ? '– –' : poured.toFixed(digits)
      }}</span>
      <span class="of">of {{ line.wanted_g.toFixed(digits) }} g</span>
    </p>
    <div v-if="!without" class="bar" aria-hidden="true">
      <div class="fill" :style="{ width: along(poured) }">
        <GrainStrip v-if="bands.length" :bands="bands" :height="44" class="grains" />
      </div>
      <i
        class="goal"
        :style="{ left: along(line.low_g), width: `calc(${along(line.high_g)} - ${along(line.low_g)})` }"
      />
    </div>
    <p class="words" role="status" aria-live="polite">{{ words }}</p>
    <p class="about">
      {{ without ? 'No scale is connected.' : `${line.spoons} if you have no scale` }}
      <span v-if="scale && scale.state !== 'none'"
        >{{ scale.scale }} scale, by {{ scale.resolution_g }} g,
        {{ scale.state === 'lost' ? 'lost' : scale.settled ? 'settled' : 'settling' }}</span
      >
    </p>
  </section>
</template>

<style scoped>
.dial {
  padding: var(--s-20) var(--s-24) var(--s-20);
}
.dial p {
  margin: 0;
}
.name {
  font-family: var(--display);
  font-weight: 700;
  font-size: clamp(28px, 4vw, 44px);
  line-height: 1.1;
  color: #fff;
}
.numbers {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--s-14);
  color: var(--on-deep-soft);
}
.numbers .big {
  font-size: clamp(84px, 15vw, 148px);
  line-height: 1;
  color: #fff;
  font-variant-numeric: tabular-nums;
  opacity: 0.78;
}
.numbers .spoons {
  font-size: clamp(40px, 5.4vw, 66px);
}
.numbers .settled {
  opacity: 1;
}
.of {
  white-space: nowrap;
  font-size: clamp(22px, 3vw, 30px);
}
.bar {
  position: relative;
  height: 48px;
  border-radius: 14px;
  background: rgb(255 255 255 / 0.14);
  overflow: hidden;
  margin: var(--s-8) 0 var(--s-12);
}
.fill {
  position: absolute;
  inset: 0 auto 0 0;
  overflow: hidden;
  transition: width var(--quick) linear;
}
.grains {
  width: 1200px;
  border: 0;
  border-radius: 0;
}
.goal {
  position: absolute;
  top: 0;
  bottom: 0;
  min-width: 4px;
  border: solid #fff;
  border-width: 0 3px;
  background: rgb(255 255 255 / 0.35);
}
.words {
  font-size: clamp(24px, 2.6vw, 28px);
  font-weight: 700;
  line-height: 1.25;
  min-height: 2.5em;
  color: #fff;
}
.over .words {
  color: #ffce8f;
}
.met .words {
  color: #bfe8ff;
}
.about {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: var(--s-2) var(--s-20);
  font-size: var(--t-s);
  color: var(--on-deep-soft);
}
@media (max-width: 720px) {
  .compact .about {
    display: none;
  }
  .compact .numbers .big {
    font-size: 64px;
  }
  .dial {
    padding: var(--s-14) var(--s-20);
  }
  .dial:not(.compact) .numbers .big {
    font-size: clamp(96px, 31vw, 148px);
  }
  .words {
    min-height: 1.3em;
  }
}
</style>
