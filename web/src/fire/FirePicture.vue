<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, useTemplateRef } from 'vue'
import { usePreferences } from '../app/preferences'
import { time } from '../kit/units'
import { LEFT, RIGHT, TOP, HIGH, PIT_TOP, PIT_HIGH, usePicture } from './usePicture'
import { useThisFire } from './useFire'

/** Centres as they were read, fraying into a fan and ending in grains; the pit as an ember strip with its dips. */
const { now } = useThisFire()
const { show } = usePreferences()
const { width } = useElementSize(useTemplateRef<HTMLElement>('box'))
const WIDE = computed(() => Math.max(280, width.value || 680))
const {
  reading,
  centres,
  typed,
  x,
  y,
  pathOf,
  fans,
  heaps,
  targets,
  hours,
  degrees,
  stalls,
  flags,
  pit,
  marked,
  inWords,
  otherwise,
  pulls,
  fuel,
} = usePicture(WIDE)
</script>

<template>
  <section class="plate picture" aria-label="Temperatures over time">
    <div ref="box">
      <svg :viewBox="`0 0 ${WIDE} 352`" role="img" :aria-label="inWords || 'Nothing was read yet'">
        <g class="axis">
          <g v-for="at in degrees" :key="at">
            <path :d="`M${LEFT} ${y(at)}H${WIDE - RIGHT}`" />
            <text :x="LEFT - 6" :y="y(at) + 4" text-anchor="end">{{ show.temperature(at) }}</text>
          </g>
          <g v-for="at in hours" :key="at.getTime()">
            <text :x="Math.min(x(at), WIDE - 22)" y="345" text-anchor="middle">{{ time(at.toISOString()) }}</text>
          </g>
        </g>
        <g v-for="(stall, n) in stalls" :key="`s${stall.letter}`" class="stall">
          <rect :x="stall.x" :y="TOP" :width="Math.max(0, stall.wide)" :height="HIGH - TOP" />
          <text :x="stall.x + 4" :y="HIGH - 6 - 16 * n">{{ stall.letter }} stalls</text>
        </g>
        <g class="flags">
          <g v-for="flag in flags" :key="flag.key">
            <path :d="`M${flag.at} ${TOP - 6}V${HIGH}`" />
            <text :x="flag.at + 3" :y="TOP - 10">{{ flag.text }}</text>
          </g>
        </g>
        <path v-for="at in targets" :key="`t${at}`" class="target" :d="`M${LEFT} ${y(at)}H${WIDE - RIGHT}`" />
        <g v-for="fan in fans" :key="`f${fan.letter}`" :class="`of-${fan.letter.toLowerCase()}`">
          <path class="fan" :d="fan.band" />
          <path class="ahead" :d="fan.middle" />
        </g>
        <path
          v-for="one in centres"
          :key="one.key"
          class="centre"
          :class="`of-${one.letter.toLowerCase()}`"
          :d="pathOf(one)"
        />
        <g v-for="one in typed" :key="`y${one.letter}`" :class="`of-${one.letter.toLowerCase()}`">
          <circle
            v-for="point in one.points"
            :key="point.at"
            class="typed"
            :cx="x(point.at)"
            :cy="y(point.celsius)"
            r="4"
          />
        </g>
        <g v-for="heap in heaps" :key="`h${heap.letter}`" class="heap" :class="`of-${heap.letter.toLowerCase()}`">
          <circle
            v-for="(grain, n) in heap.grains"
            :key="n"
            :cx="grain.x"
            :cy="heap.base - grain.y"
            :r="heap.size - 0.5"
          />
        </g>
        <g class="pit">
          <text :x="LEFT - 6" :y="PIT_TOP + PIT_HIGH / 2 + 4" text-anchor="end">pit</text>
          <rect
            v-if="pit.band"
            class="band"
            :x="LEFT"
            :y="pit.band.y"
            :width="WIDE - RIGHT - LEFT"
            :height="Math.max(2, pit.band.high)"
          />
          <path v-for="one in pit.paths" :key="one.key" :d="one.d" />
          <circle v-for="one in pit.typed" :key="one.x" :cx="one.x" :cy="one.y" r="4" />
          <text v-for="dip in marked" :key="dip.key" class="dip" :x="dip.at" :y="PIT_TOP - 6" text-anchor="middle">
            {{ dip.says }}
          </text>
        </g>
        <path class="now" :d="`M${x(now)} ${TOP - 4}V${PIT_TOP + PIT_HIGH}`" />
      </svg>
    </div>
    <p v-if="heaps.length" class="legend muted">
      <span>each grain is one chance in twenty of when it comes off; eight in ten lie in the fan</span>
      <span v-for="heap in heaps.filter((one) => one.never)" :key="heap.letter">
        {{ heap.letter }}: {{ heap.never }} in 20 later still, or never so
      </span>
    </p>
    <ul v-if="otherwise.length || pulls.length || fuel" class="said">
      <li v-for="says in pulls" :key="says">{{ says }}.</li>
      <li v-for="says in otherwise" :key="says">{{ says }}.</li>
      <li v-if="fuel">
        Fuel {{ Date.parse(fuel) < now ? 'was' : 'is' }} due about {{ time(fuel) }}, {{ reading?.pit.fuel_says }}.
      </li>
    </ul>
  </section>
</template>

<style scoped>
.picture {
  padding: var(--s-12) var(--s-16);
}
svg {
  width: 100%;
  display: block;
}
text {
  font-size: var(--t-xs);
  fill: var(--muted);
}
.axis path {
  stroke: var(--line);
}
.flags path {
  stroke: var(--line-strong);
  stroke-dasharray: 2 4;
}
.target {
  stroke: var(--ink);
  stroke-dasharray: 6 4;
  stroke-width: 1.2;
}
.stall rect {
  fill: var(--tint);
}
.centre,
.ahead {
  fill: none;
  stroke: currentColor;
  stroke-width: 2.6;
}
.ahead {
  stroke-dasharray: 2 4;
  stroke-width: 2;
}
.fan {
  fill: currentColor;
  opacity: 0.16;
}
.heap circle,
.typed {
  fill: currentColor;
}
.of-a {
  color: var(--piece-a);
}
.of-b {
  color: var(--piece-b);
}
.centre.of-b,
.centre.of-d,
.centre.of-f,
.centre.of-h {
  stroke-dasharray: 8 4;
}
.of-c {
  color: var(--piece-c);
}
.of-d {
  color: var(--piece-d);
}
.of-e {
  color: var(--piece-e);
}
.of-f {
  color: var(--piece-f);
}
.of-g {
  color: var(--piece-g);
}
.of-h {
  color: var(--piece-h);
}
.pit path,
.pit circle {
  fill: var(--ember-glow);
}
.pit .band {
  fill: var(--ember);
  opacity: 0.16;
}
.dip {
  fill: var(--ember);
}
.now {
  stroke: var(--ember);
  stroke-width: 2;
}
.legend {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s-2) var(--s-16);
  margin: var(--s-4) 0 0;
  font-size: var(--t-s);
}
.said {
  margin: var(--s-6) 0 0;
  padding-left: var(--s-20);
  font-size: var(--t-s);
}
</style>
