<script setup lang="ts">
/** A sample as tasters meet it: an enamel plate with its number. */
withDefaults(defineProps<{ code: string; size?: number }>(), { size: 190 })
</script>

<template>
  <svg :width="size" :height="size" viewBox="0 0 200 200" role="img" :aria-label="`Plate ${code}`">
    <circle cx="100" cy="100" r="96" class="rim" />
    <circle cx="100" cy="100" r="70" class="well" />
    <text x="100" y="120" text-anchor="middle">{{ code }}</text>
  </svg>
</template>

<style scoped>
svg {
  max-width: 42vw;
}
.rim {
  fill: var(--plate);
  stroke: var(--rim);
  stroke-width: 4;
}
.well {
  fill: var(--tint);
  stroke: var(--line);
  stroke-width: 1.5;
}
text {
  font-family: var(--display);
  font-weight: 700;
  font-size: 56px;
  fill: var(--ink);
}
</style>
