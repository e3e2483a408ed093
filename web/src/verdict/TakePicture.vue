<script setup lang="ts">
import { takePng, takeSvg } from './picture'

/** Takes the picture beside it away. */
const props = defineProps<{ of: () => SVGSVGElement | null | undefined; name: string }>()
const svg = () => {
  const found = props.of()
  if (found) takeSvg(found, props.name)
}
const png = () => {
  const found = props.of()
  if (found) void takePng(found, props.name)
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
