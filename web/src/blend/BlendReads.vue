<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../api/client'
import CautionList from '../ui/CautionList.vue'
import { percent } from '../ui/units'
import Why from '../ui/Why.vue'

/** How a blend reads: its salt, sugar and acid, and what to know before it goes on meat. */
const props = defineProps<{ reading: Schemas['BlendReadingOut'] | null; kind: string }>()

const scales = computed(() => {
  const reading = props.reading
  if (!reading) return []
  return [
    { name: 'Sugar', figure: reading.sugar, full: 60 },
    { name: 'Acid', figure: reading.acid, full: 6 },
  ]
})
</script>

<template>
  <aside class="reads">
    <div class="answer">
      <template v-if="reading">
        <p class="big">
          <Why :figure="reading.salt" of="Salt in the blend">{{ percent(reading.salt.value) }} salt</Why>
        </p>
        <p>
          of the {{ kind }} by weight, between {{ percent(reading.salt.low ?? 0) }} and
          {{ percent(reading.salt.high ?? 0) }}
        </p>
      </template>
      <p v-else class="big">No ratio yet</p>
    </div>
    <slot />
    <div v-if="reading" class="scales">
      <div v-for="scale in scales" :key="scale.name" class="scale">
        <div>
          <b>{{ scale.name }}</b>
          <Why :figure="scale.figure" :of="`${scale.name} in the blend`">{{ percent(scale.figure.value) }}</Why>
        </div>
        <div class="bar" aria-hidden="true">
          <i :style="{ width: `${Math.min(100, (scale.figure.value / scale.full) * 100)}%` }" />
        </div>
      </div>
    </div>
    <CautionList v-if="reading" :cautions="reading.cautions" only="others" />
  </aside>
</template>

<style scoped>
.reads {
  display: grid;
  gap: 18px;
}
.answer {
  padding: 18px 22px;
}
.answer p {
  margin: 0;
  color: #d7dff5;
  font-size: 14px;
}
.answer .big {
  font-size: 32px;
  line-height: 1.1;
  margin-bottom: 6px;
  color: #fff;
}
.scales {
  display: grid;
  gap: 14px;
  padding: 0 6px;
}
.scale > div:first-child {
  display: flex;
  justify-content: space-between;
}
.bar {
  height: 8px;
  border-radius: 4px;
  background: var(--line);
  overflow: hidden;
  margin-top: 4px;
}
.bar i {
  display: block;
  height: 100%;
  background: var(--cobalt);
  border-radius: 4px;
}
.reads :deep(.cautions) {
  padding: 0 6px;
}
</style>
