<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { useChange } from '../api/change'
import { api, call, sentenceOf } from '../api/client'
import { heaped } from '../draw/heap'
import { say } from '../kit/notice'
import { useWidth } from '../kit/useWidth'
import Why from '../kit/Why.vue'
import TakePicture from './TakePicture.vue'

/** The salt this table likes, as twenty grains on the scale of salt, and one tap to want it of the cook in hand. */
const client = useQueryClient()
const { data, error } = useQuery({ queryKey: ['verdicts', 'salt'], queryFn: () => call(api.GET('/api/verdicts/salt')) })
const box = ref<HTMLElement | null>(null)
const svg = ref<SVGSVGElement | null>(null)
const width = useWidth(box, 320)
const R = 4.6
const LOW = 0.5
const HIGH = 2.5
const x = (percent: number) => 22 + ((Math.min(HIGH, Math.max(LOW, percent)) - LOW) / (HIGH - LOW)) * (width.value - 44)
const grains = computed(() => heaped((data.value?.salt.grains ?? []).map(x), R))
const tall = computed(() => Math.max(24, ...grains.value.map((grain) => grain.y + R)) + 26)
const want = useChange('cook', async () => {
  const found = data.value
  if (!found?.cook_id) return
  await call(api.POST('/api/verdicts/salt', { body: { cook_id: found.cook_id } }))
  await client.invalidateQueries()
  say(`${found.cook}: the salt wanted of its pieces is what this table likes.`)
})
</script>

<template>
  <section class="plate salt" aria-labelledby="salt">
    <h2 id="salt">The salt this table likes</h2>
    <p v-if="error">{{ sentenceOf(error) }}</p>
    <template v-if="data">
      <p>{{ data.salt.says }}</p>
      <div ref="box">
        <svg
          v-if="grains.length"
          ref="svg"
          :width="width"
          :height="tall"
          :viewBox="`0 0 ${width} ${tall}`"
          aria-hidden="true"
        >
          <line class="base" x1="12" :x2="width - 12" :y1="tall - 24" :y2="tall - 24" />
          <circle v-for="(grain, n) in grains" :key="n" :cx="grain.x" :cy="tall - 24 - grain.y" :r="R - 0.4" />
          <text v-for="n in [0.5, 1, 1.5, 2, 2.5]" :key="n" :x="x(n)" :y="tall - 6" text-anchor="middle">
            {{ n }} %
          </text>
        </svg>
      </div>
      <TakePicture v-if="grains.length" :of="() => svg" name="The salt this table likes" />
      <p v-if="data.salt.liked" class="act">
        <Why :figure="data.salt.liked" of="The salt this table likes">{{ data.salt.liked.value.toFixed(1) }} %</Why>
        <v-btn v-if="data.cook_id" class="solid" :loading="want.busy.value" @click="want"
          >Want it for {{ data.cook }}</v-btn
        >
      </p>
    </template>
  </section>
</template>

<style scoped>
.salt {
  padding: var(--s-20) var(--s-24);
}
p {
  margin: var(--s-6) 0 0;
}
svg {
  display: block;
  margin-top: var(--s-10);
}
circle {
  fill: var(--piece-a);
}
.base {
  stroke: var(--rim);
  stroke-width: 1.5;
}
text {
  font-size: 13px;
  fill: var(--muted);
}
.act {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s-8) var(--s-20);
  align-items: center;
  margin-top: var(--s-10);
}
@media print {
  .act :deep(button) {
    display: none;
  }
}
</style>
