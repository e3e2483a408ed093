<script setup lang="ts">
import { mdiAlert, mdiOctagon, mdiShieldCheckOutline } from '@mdi/js'
import type { Schemas } from '../api/client'
import { usePreferences } from '../app/preferences'
import { duration, little, percent, unbroken } from '../kit/units'
import Tick from '../kit/Tick.vue'
import Why from '../kit/Why.vue'
import { HIGH, curve, WIDE } from './sides'

/** One way of seasoning the joint: its salt, how deep that goes, its surface at the fire, the time and the risk. */
const chosen = defineModel<boolean>({ required: true })
defineProps<{ one: Schemas['WayReadingOut']; zone: [number, number]; longest: number; top: number }>()

const { show } = usePreferences()
const MOST_SALT = 2.6
const MOST_WATER = 5
const MOST_CRUST = 12
const share = (value: number, most: number) => `${Math.min(100, (value / most) * 100)}%`
const salt = (value: number) => share(value, MOST_SALT)
</script>

<template>
  <article class="way" :class="{ on: chosen }">
    <Tick v-model="chosen" :disabled="!!one.problem" class="pick"
      ><b>{{ one.name }}</b
      ><small class="muted">{{ one.blends.join(', ') || one.says }}</small></Tick
    >
    <p v-if="one.problem" class="problem says">{{ one.problem }}</p>
    <template v-else>
      <div class="cell">
        <small class="tag">Salt</small>
        <b
          ><Why :figure="one.salt!" :of="`Salt, ${one.name}`">{{ percent(one.salt!.value) }}</Why></b
        >
        <span class="muted">{{ one.zone }}</span>
        <div class="bar">
          <u :style="{ left: salt(zone[0]), width: `calc(${salt(zone[1])} - ${salt(zone[0])})` }" />
          <i :style="{ width: salt(one.salt!.value) }" />
        </div>
      </div>
      <div class="cell">
        <small class="tag">Depth</small>
        <svg
          :viewBox="`0 0 ${WIDE} ${HIGH}`"
          preserveAspectRatio="none"
          role="img"
          :aria-label="`Salt below the surface, ${little(one.centre_percent)} in the centre`"
        >
          <rect :width="WIDE" :height="HIGH" class="flesh" />
          <path :d="curve(one.depths_cm, one.percent, top)" :class="one.least.length ? 'needled' : 'salted'" />
          <path v-if="one.least.length" :d="curve(one.depths_cm, one.least, top)" class="salted" />
        </svg>
        <span
          ><Why :figure="one.deeper!" :of="`Salt deeper than 5 mm, ${one.name}`"
            >{{ one.deeper!.value.toFixed(0) }} %</Why
          >
          of it deeper than {{ show.depth(5)
          }}<template v-if="one.least.length">, {{ little(one.least.at(-1)!) }} where least</template></span
        >
      </div>
      <div class="cell">
        <small class="tag">Surface</small>
        <div class="bar thin water"><i :style="{ width: share(one.water!.value, MOST_WATER) }" /></div>
        <div class="bar thin crust"><i :style="{ width: share(one.crust_g_100cm2, MOST_CRUST) }" /></div>
        <span
          >{{ one.surface
          }}<template v-if="one.dries"
            >; dries in
            <Why :figure="one.dries" :of="`Drying, ${one.name}`">{{ one.dries.value.toFixed(0) }} min</Why></template
          ></span
        >
      </div>
      <div class="cell">
        <small class="tag">Time</small>
        <b
          ><Why :figure="one.ahead!" :of="`Ahead of the fire, ${one.name}`">{{ duration(one.ahead!.value) }}</Why></b
        >
        <span class="muted line">{{ duration(one.hands_s) }} of it work</span>
        <div class="bar thin time"><i :style="{ width: share(one.ahead!.value, longest) }" /></div>
      </div>
      <div class="cell risk">
        <p v-for="caution in one.worst" :key="caution.sentence" :class="caution.level">
          <v-icon :icon="caution.level === 'stop' ? mdiOctagon : mdiAlert" size="16" aria-hidden="true" />
          <span
            ><b>{{ caution.level === 'stop' ? 'Stop' : 'Caution' }}</b> {{ unbroken(caution.sentence) }}</span
          >
        </p>
        <p v-if="!one.worst.length" class="muted">
          <v-icon :icon="mdiShieldCheckOutline" size="16" aria-hidden="true" /><span>nothing beyond the usual</span>
        </p>
      </div>
    </template>
  </article>
</template>

<style scoped>
.way {
  display: grid;
  grid-template-columns: minmax(0, 1.35fr) 0.75fr 1fr 1.2fr 0.8fr 1.6fr;
  gap: var(--s-6) var(--s-20);
  align-items: center;
  padding: var(--s-10) 0;
  border-top: 1px solid var(--line);
}
.way.on {
  background: linear-gradient(90deg, var(--tint), transparent);
  border-radius: 10px;
}
p {
  margin: 0;
  font-size: var(--t-s);
}
.says {
  color: var(--stop);
}
.problem {
  grid-column: 2 / -1;
}
.pick small {
  display: block;
  font-size: var(--t-xs);
  line-height: 1.3;
}
.cell {
  font-size: var(--t-xs);
  line-height: 1.35;
  min-width: 0;
}
.cell b {
  font-size: var(--t-l);
  margin-right: var(--s-6);
}

/* a column has its heading above it on a wide screen, and in every cell on a narrow one */
.tag {
  display: none;
  color: var(--muted);
}
.line {
  display: block;
}
.bar {
  position: relative;
  height: 14px;
  background: var(--tint);
  border-radius: 7px;
  margin-top: var(--s-4);
}
.bar i {
  display: block;
  height: 100%;
  border-radius: 7px;
  background: var(--cobalt);
}
.bar u {
  position: absolute;
  top: -3px;
  bottom: -3px;
  border: 2px solid var(--ink);
  border-radius: 5px;
}
.bar.thin {
  height: 8px;
}
.bar.water i {
  background: var(--water);
}
.bar.crust i {
  background: var(--crust);
}
.bar.time i {
  background: repeating-linear-gradient(115deg, var(--cobalt) 0 4px, var(--line-strong) 4px 8px);
}
svg {
  width: 100%;
  height: 46px;
  display: block;
  border-radius: 8px;
}
.flesh {
  fill: var(--meat);
}
.salted {
  fill: var(--salt);
  opacity: 0.82;
}
.needled {
  fill: var(--salt);
  opacity: 0.3;
}
.risk p {
  display: grid;
  grid-template-columns: 16px 1fr;
  gap: var(--s-6);
  font-size: var(--t-xs);
}
.risk b {
  font-size: var(--t-xs);
  margin: 0;
}
.risk .stop b,
.risk .stop .v-icon {
  color: var(--stop);
}
.risk .caution b,
.risk .caution .v-icon {
  color: var(--caution);
}
@media (max-width: 900px) {
  .way {
    flex: 0 0 90%;
    grid-template-columns: minmax(0, 1fr);
    align-content: start;
    scroll-snap-align: start;
    border-top: 0;
    gap: var(--s-14);
  }
  .tag {
    display: block;
  }
  .problem {
    grid-column: 1;
  }
  svg {
    height: 96px;
  }
}
</style>
