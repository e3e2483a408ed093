<script setup lang="ts">
import { computed } from 'vue'
import Why from '../kit/Why.vue'
import type { CutRow } from './useQuestion'

/** What is known of one cut, in words first, with the figures that say why. */
const props = defineProps<{ row: CutRow; name: string; held?: string }>()
const grains = computed(() => Math.round((props.row.chance?.value ?? 0) * 20))
</script>

<template>
  <section class="answer" :aria-label="`${name}: verdict`">
    <p class="cut">{{ name }}</p>
    <p class="big">{{ row.headline }}</p>
    <p v-for="sentence in row.says" :key="sentence">{{ sentence }}</p>
    <p v-if="held">{{ held }}</p>
    <p v-if="row.difference && row.chance" class="whys">
      <Why :figure="row.chance" :of="`How sure, ${name}`">{{ grains }} of 20 grains</Why>
      <Why :figure="row.difference" :of="`Difference, ${name}`"
        >{{ Math.abs(row.difference.value).toFixed(1) }} points</Why
      >
      <Why v-if="row.more?.figure" :figure="row.more.figure" :of="`How many more cooks, ${name}`">{{
        row.more.cooks ? `${row.more.cooks} more` : 'unlikely to be settled'
      }}</Why>
    </p>
    <slot />
  </section>
</template>

<style scoped>
.answer {
  padding: var(--s-20) var(--s-24);
}
p {
  margin: var(--s-6) 0 0;
  color: var(--on-deep-soft);
}
.cut {
  margin: 0;
  color: #fff;
}
.big {
  font-size: var(--t-big);
  line-height: 1.08;
  margin: var(--s-2) 0 var(--s-8);
  color: #fff;
}
.whys {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s-4) var(--s-20);
}
</style>
