<script setup lang="ts">
/** Beside a figure that rests on what was last read, as something of it cannot be read now. */
</script>

<template>
  <span class="old" title="from before: something it rests on could not be read">from before</span>
</template>

<style scoped>
.old {
  display: inline-block;
  font-family: var(--body);
  font-size: var(--t-xs);
  font-weight: 400;
  font-style: normal;
  letter-spacing: 0;
  line-height: 1.3;
  color: var(--caution);
  border: 1.5px dashed currentcolor;
  border-radius: 8px;
  padding: 0 var(--s-6);
  margin-inline-start: var(--s-6);
  white-space: nowrap;
}
</style>
