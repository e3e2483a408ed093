<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, onMounted, useTemplateRef, watch } from 'vue'
import { drawBand, prepared, type Grains } from './grains'

/** A blend as one band of grains; widths are mass shares. */
const props = withDefaults(
  defineProps<{ bands: { of: Grains; name: string; share: number }[]; height?: number; labelled?: boolean }>(),
  { height: 112, labelled: false },
)

const box = useTemplateRef('box')
const canvas = useTemplateRef('canvas')
const { width } = useElementSize(box)

function draw() {
  if (!canvas.value || !width.value) return
  const ctx = prepared(canvas.value, width.value, props.height)
  if (!ctx) return
  let x = 0
  for (const band of props.bands) {
    const w = band.share * width.value
    drawBand(ctx, x, 0, w, props.height, band.of)
    x += w
    ctx.fillStyle = 'rgb(255 255 255 / 0.85)'
    if (x < width.value - 1) ctx.fillRect(x - 0.75, 0, 1.5, props.height)
  }
}
onMounted(draw)
watch([width, () => props.bands], draw, { flush: 'post' })

const inWords = computed(() => props.bands.map((band) => `${(band.share * 100).toFixed(0)} % ${band.name}`).join(', '))
</script>

<template>
  <div ref="box" class="grain-strip">
    <div class="frame" :style="{ height: `${height}px` }" role="img" :aria-label="`By mass: ${inWords}`">
      <canvas ref="canvas" :style="{ width: '100%', height: `${height}px` }" aria-hidden="true" />
    </div>
    <div v-if="labelled" class="labels" aria-hidden="true">
      <div v-for="(band, at) in bands" :key="at" class="label" :style="{ width: `${band.share * 100}%` }">
        <b v-if="band.share * width > 34">{{ (band.share * 100).toFixed(0) }}%</b>
        <span v-if="band.share * width > 100">&nbsp;{{ band.name }}</span>
      </div>
    </div>
  </div>
</template>

<style scoped>
.frame {
  border: 2px solid var(--rim);
  border-radius: 14px;
  overflow: hidden;
  background: var(--tint);
}
canvas {
  display: block;
}
.labels {
  display: flex;
  font-size: 13px;
  color: var(--muted);
  padding-top: 4px;
  height: 24px;
}
.label {
  overflow: hidden;
  white-space: nowrap;
  text-overflow: ellipsis;
  padding-left: 3px;
}
.label b {
  color: var(--ink);
}
</style>
