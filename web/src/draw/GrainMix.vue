<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { onMounted, useTemplateRef, watch } from 'vue'
import { drawMixture, prepared, type Grains } from './grains'

/** A blend as it lies, its grains among each other, filling the box it is in. */
const props = defineProps<{ blend: { of: Grains; share: number }[]; seed: string }>()
const box = useTemplateRef('box')
const canvas = useTemplateRef('canvas')
const { width, height } = useElementSize(box)
function draw() {
  if (!canvas.value || !width.value || !height.value) return
  const ctx = prepared(canvas.value, width.value, height.value)
  if (ctx) drawMixture(ctx, width.value, height.value, props.blend, props.seed)
}
onMounted(draw)
watch([width, height, () => props.blend], draw, { flush: 'post' })
</script>

<template>
  <div ref="box" class="mix" aria-hidden="true"><canvas ref="canvas" /></div>
</template>

<style scoped>
.mix {
  overflow: hidden;
  position: relative;
}
canvas {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
}
</style>
