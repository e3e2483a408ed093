<script setup lang="ts">
/** A sample's mark where there is room for a point only: a shape and a colour of its own for each letter. */
defineProps<{ letter: string }>()
const SHAPES: Record<string, string> = {
  A: 'M7 1a6 6 0 1 1 0 12a6 6 0 1 1 0-12Z', B: 'M1.5 1.5h11v11h-11Z', C: 'M7 1l6 11.5H1Z', D: 'M7 0.5l6.5 6.5L7 13.5L0.5 7Z',
  E: 'M1 1.5h12L7 13Z', F: 'M4 1h6l3.5 6L10 13H4L0.5 7Z', G: 'M1 5h4V1h4v4h4v4H9v4H5V9H1Z', H: 'M2 0.5L7 5l5-4.5L13.5 2L9 7l4.5 5L12 13.5L7 9l-5 4.5L0.5 12L5 7L0.5 2Z',
} // prettier-ignore
</script>

<template>
  <svg width="14" height="14" viewBox="0 0 14 14" aria-hidden="true">
    <path :d="SHAPES[letter]" :style="{ fill: `var(--piece-${letter.toLowerCase()})` }" />
  </svg>
</template>
