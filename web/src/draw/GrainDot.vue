<script setup lang="ts">
import { onMounted, useTemplateRef, watch } from 'vue'
import { drawBand, prepared, type Band } from './grains'

/** A blend as a round heap of its own grains, as seen in a bowl from above. */
const props = withDefaults(defineProps<{ bands: Band[]; size?: number }>(), { size: 52 })
const canvas = useTemplateRef('canvas')

function draw() {
  const { size } = props
  const ctx = canvas.value && prepared(canvas.value, size, size)
  if (!ctx) return
  const centre = size / 2
  // slices of a round, the largest first from the top, each filled with its own grains
  let from = -Math.PI / 2
  for (const band of props.bands) {
    const to = from + band.share * 2 * Math.PI
    ctx.save()
    ctx.beginPath()
    ctx.moveTo(centre, centre)
    ctx.arc(centre, centre, centre - 1, from, to)
    ctx.closePath()
    ctx.clip()
    drawBand(ctx, 0, 0, size, size, band.of)
    ctx.restore()
    from = to
  }
}
onMounted(draw)
watch(() => props.bands, draw, { flush: 'post' })
</script>

<template>
  <canvas ref="canvas" :style="{ width: `${size}px`, height: `${size}px` }" aria-hidden="true" />
</template>

<style scoped>
canvas {
  display: block;
  border-radius: 50%;
}
</style>
