<script setup lang="ts">
import type { Schemas } from '../api/client'
import Why from '../ui/Why.vue'

/** The one big answer of a layer: how much, in level spoons too, and a batch to match in one click. */
defineProps<{ text: string; reading: Schemas['LayerReadingOut']; of: string; batch: string }>()
defineEmits<{ batch: [] }>()
</script>

<template>
  <div class="answer dose">
    <div>
      <p class="big">
        <Why :figure="reading.dose" :of="of">{{ text }}</Why>
      </p>
      <p>
        <Why :figure="reading.spoons.volume" of="Level spoons">{{ reading.spoons.text }}</Why>, level
      </p>
    </div>
    <v-btn class="on-dark" @click="$emit('batch')">{{ batch }}</v-btn>
  </div>
</template>

<style scoped>
.dose {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 12px;
  flex-wrap: wrap;
  padding: 14px 20px;
}
p {
  margin: 0;
  color: #d7dff5;
}
.dose .big {
  font-size: 30px;
  line-height: 1.1;
  color: #fff;
}
</style>
