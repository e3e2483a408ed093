<script setup lang="ts">
/** Who handed a card in: a pennant with the taster's name, so that it is never taken for the mark of a sample. */
defineProps<{ name: string; blind: boolean }>()
</script>

<template>
  <span class="pennant" :title="blind ? name : `${name}, not blind`">
    {{ name }}<small v-if="!blind">, not blind</small>
  </span>
</template>

<style scoped>
.pennant {
  display: inline-block;
  background: var(--tint);
  color: var(--ink);
  font-weight: 600;
  font-size: var(--t-s);
  padding: var(--s-6) var(--s-24) var(--s-6) var(--s-12);
  border-left: 4px solid var(--line-strong);
  clip-path: polygon(0 0, 100% 0, calc(100% - 12px) 50%, 100% 100%, 0 100%);
}
small {
  font-weight: 400;
  font-size: var(--t-xs);
}
</style>
