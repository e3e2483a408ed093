<script setup lang="ts">
import { onMounted, useTemplateRef, watch } from 'vue'
import { meanColour, prepared, scatter, type Band } from './grains'
import { usePreferences } from '../app/preferences'

/** A jar at its level, with the blend's own grains in it. */
const props = withDefaults(defineProps<{ bands: Band[]; full: number; name: string; width?: number }>(), { width: 92 })
const canvas = useTemplateRef('canvas')
const { preferences } = usePreferences()

function draw() {
  const w = props.width
  const h = w * 1.3
  const ctx = canvas.value && prepared(canvas.value, w, h)
  if (!ctx || !canvas.value) return
  const style = getComputedStyle(canvas.value)
  const line = style.getPropertyValue('--line-strong')
  const wall = 4
  const top = h * 0.17
  const glass = new Path2D()
  glass.roundRect(wall, top, w - 2 * wall, h - top - wall, w * 0.14)
  ctx.fillStyle = style.getPropertyValue('--tint')
  ctx.fill(glass)
  ctx.save()
  ctx.clip(glass)
  const height = ((h - top - wall) * Math.min(100, Math.max(0, props.full))) / 100
  const level = h - wall - height
  ctx.fillStyle = meanColour(props.bands)
  ctx.fillRect(0, level, w, height)
  const inside = (random: () => number): [number, number] => [random() * w, level + random() * height]
  scatter(ctx, inside, props.bands, (w * height) / 9, props.name)
  ctx.restore()
  ctx.strokeStyle = line
  ctx.lineWidth = 2.5
  ctx.stroke(glass)
  const lid = new Path2D()
  lid.roundRect(w * 0.12, 2, w * 0.76, top - 4, 5)
  ctx.fillStyle = style.getPropertyValue('--rim')
  ctx.fill(lid)
}
onMounted(draw)
watch([() => props.bands, () => props.full, () => preferences.value.theme], draw, { flush: 'post' })
</script>

<template>
  <canvas
    ref="canvas"
    :style="{ width: `${width}px`, height: `${width * 1.3}px` }"
    role="img"
    :aria-label="`A jar of ${name}, ${Math.round(full)} % full`"
  />
</template>
