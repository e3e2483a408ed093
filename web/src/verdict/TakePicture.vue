<script setup lang="ts">
import { takePng, takeSvg } from './picture'

/** Takes the drawings within an element away, one under the other. */
const props = defineProps<{ of: () => Element | null | undefined; name: string }>()
const drawings = () => {
  const found = props.of()
  if (!found) return []
  return found instanceof SVGSVGElement ? [found] : [...found.querySelectorAll<SVGSVGElement>('svg[data-caption]')]
}
const svg = () => {
  const found = drawings()
  if (found.length) takeSvg(found, props.name)
}
const png = () => {
  const found = drawings()
  if (found.length) void takePng(found, props.name)
}
</script>

<template>
  <span class="take">
    <span class="muted">Picture:</span>
    <button type="button" class="link" @click="svg">SVG</button>
    <button type="button" class="link" @click="png">PNG</button>
  </span>
</template>

<style scoped>
.take {
  display: inline-flex;
  gap: var(--s-12);
  align-items: center;
  font-size: var(--t-s);
}
@media print {
  .take {
    display: none;
  }
}
</style>
