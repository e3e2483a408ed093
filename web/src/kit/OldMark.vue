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
  font-size: 13px;
  font-weight: 400;
  font-style: normal;
  letter-spacing: 0;
  line-height: 1.3;
  color: var(--caution);
  border: 1.5px dashed currentcolor;
  border-radius: 8px;
  padding: 0 6px;
  margin-inline-start: 6px;
  white-space: nowrap;
}
</style>
