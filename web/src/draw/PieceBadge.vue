<script setup lang="ts">
/** The letter of a piece in its own mark of eight: an outline and a line as well as a colour, which is never alone. */
defineProps<{ letter: string }>()
</script>

<template>
  <span class="badge" :class="`mark-${letter.toLowerCase()}`">{{ letter }}</span>
</template>

<style scoped>
.badge {
  display: inline-grid;
  place-items: center;
  width: 34px;
  height: 26px;
  border-radius: 13px;
  border: 2.5px solid currentColor;
  font-weight: 700;
  font-size: var(--t-m);
  flex: none;
}
.mark-a {
  color: var(--piece-a);
}
.mark-b {
  color: var(--piece-b);
  border-style: dashed;
}
.mark-c {
  color: var(--piece-c);
  border-radius: 3px;
}
.mark-d {
  color: var(--piece-d);
  border-radius: 3px;
  border-style: dashed;
}
.mark-e {
  color: var(--piece-e);
  border-radius: 13px 13px 3px 3px;
}
.mark-f {
  color: var(--piece-f);
  border-radius: 13px 13px 3px 3px;
  border-style: dashed;
}
.mark-g {
  color: var(--piece-g);
  border-width: 5px;
  border-style: double;
}
.mark-h {
  color: var(--piece-h);
  border-width: 5px;
  border-style: double;
  border-radius: 3px;
}
</style>
