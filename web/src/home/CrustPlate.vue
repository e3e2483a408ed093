<script setup lang="ts">
import { onMounted, useTemplateRef, watch } from 'vue'
import { outlineOf, type Shaped } from '../draw/pieces'
import { meanColour, prepared, scatter, type Grains } from '../draw/grains'
import { usePreferences } from '../app/preferences'

/** A piece on its enamel plate, in its own shape and the crust its own blend makes. */
const props = defineProps<{
  blend: { of: Grains; share: number }[]
  bath: boolean
  name: string
  solid?: Shaped
}>()
const canvas = useTemplateRef('canvas')
const { preferences } = usePreferences()
const SIZE = 196

function mix(a: string, b: string, share: number): string {
  const at = (text: string, n: number) => parseInt(text.slice(1 + n * 2, 3 + n * 2), 16)
  return `rgb(${[0, 1, 2].map((n) => Math.round(at(a, n) * (1 - share) + at(b, n) * share)).join(' ')})`
}

function draw() {
  const ctx = canvas.value && prepared(canvas.value, SIZE, SIZE)
  if (!ctx || !canvas.value) return
  const style = getComputedStyle(canvas.value)
  const middle = SIZE / 2
  const ring = (r: number, fill: string, line: string, width: number) => {
    ctx.beginPath()
    ctx.arc(middle, middle, r, 0, 2 * Math.PI)
    ctx.fillStyle = fill
    ctx.fill()
    ctx.strokeStyle = line
    ctx.lineWidth = width
    ctx.stroke()
  }
  ring(95, style.getPropertyValue('--plate'), style.getPropertyValue('--rim'), 3)
  ring(71, style.getPropertyValue('--tint'), style.getPropertyValue('--line'), 1.2)

  const reach = 64
  const unknown = { shape: 'ellipsoid', length_cm: 4, width_cm: 3, thickness_cm: 2, pieces: 1 }
  const crust = outlineOf(props.solid ?? unknown, middle, reach)
  const meat = props.bath ? '#b56a5f' : '#8a4034'
  const shine = ctx.createRadialGradient(middle - 16, middle - 18, 8, middle, middle, 66)
  shine.addColorStop(0, mix(meat, meanColour(props.blend), props.bath ? 0.35 : 0.25))
  shine.addColorStop(1, mix('#3a1713', meanColour(props.blend), 0.3))
  ctx.fillStyle = shine
  ctx.fill(crust)
  ctx.save()
  ctx.clip(crust)
  const within = (random: () => number): [number, number] => {
    const angle = random() * 2 * Math.PI
    const out = Math.sqrt(random())
    return [middle + Math.cos(angle) * out * reach, middle + Math.sin(angle) * out * reach]
  }
  // a bath leaves only what clings; a rub lies thick
  scatter(ctx, within, props.blend, props.bath ? 3800 : 2200, props.name)
  ctx.restore()
  ctx.strokeStyle = 'rgb(20 16 28 / 0.75)'
  ctx.lineWidth = 1.5
  ctx.stroke(crust)
}
onMounted(draw)
watch([() => props.blend, () => props.solid, () => preferences.value.theme], draw, { flush: 'post' })
</script>

<template>
  <canvas
    ref="canvas"
    class="crust"
    role="img"
    :aria-label="`${name}: the piece on a plate, in its own ${bath ? 'marinade' : 'rub'}`"
  />
</template>

<style scoped>
.crust {
  width: 196px;
  height: 196px;
  display: block;
}
</style>
