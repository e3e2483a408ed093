<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, onMounted, useTemplateRef, watch } from 'vue'
import { drawBand, prepared, type Band } from './grains'

/** A blend as one band of grains; widths are mass shares. */
const props = withDefaults(defineProps<{ bands: Band[]; height?: number; label?: string }>(), {
  height: 112,
  label: 'By mass',
})

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
    if (x > 0 && !band.joined) {
      ctx.fillStyle = 'rgb(255 255 255 / 0.85)'
      ctx.fillRect(x - 0.75, 0, 1.5, props.height)
    }
    x += w
  }
}
onMounted(draw)
watch([width, () => props.bands], draw, { flush: 'post' })

const inWords = computed(() => props.bands.map((band) => `${(band.share * 100).toFixed(0)} % ${band.name}`).join(', '))
</script>

<template>
  <div
    ref="box"
    class="frame"
    :class="{ thin: height < 24 }"
    :style="{ height: `${height}px` }"
    role="img"
    :aria-label="`${label}: ${inWords}`"
  >
    <canvas ref="canvas" :style="{ width: '100%', height: `${height}px` }" aria-hidden="true" />
  </div>
</template>

<style scoped>
.frame {
  border: 2px solid var(--rim);
  border-radius: 14px;
  overflow: hidden;
  background: var(--tint);
  box-sizing: content-box;
}
.thin {
  border-width: 1px;
  border-radius: 7px;
  border-color: var(--line-strong);
}
canvas {
  display: block;
}
</style>
