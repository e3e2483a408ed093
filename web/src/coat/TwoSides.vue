<script setup lang="ts">
/** A wide plate of one layer: its name and a word on it above, a picture on one side and its numbers on the other. */
defineProps<{ title: string }>()
</script>

<template>
  <section class="plate sides-of-it">
    <header>
      <h2>{{ title }}</h2>
      <p class="muted"><slot name="about" /></p>
    </header>
    <div class="side"><slot name="picture" /></div>
    <div class="side"><slot name="numbers" /></div>
  </section>
</template>

<style scoped>
.sides-of-it {
  padding: var(--s-20) var(--s-24);
  display: grid;
  grid-template-columns: minmax(0, 1.15fr) minmax(0, 1fr);
  gap: var(--s-12) var(--s-32);
  align-items: start;
}
header {
  grid-column: 1 / -1;
  display: flex;
  justify-content: space-between;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--s-4) var(--s-16);
}
h2 {
  font-size: var(--t-h3);
}
.side {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--s-10);
}
:where(.sides-of-it) :deep(p) {
  margin: 0;
  font-size: var(--t-s);
}
:where(.sides-of-it) :deep(.fields) {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(120px, 1fr));
  gap: var(--s-10);
  align-items: start;
}
@media (max-width: 900px) {
  .sides-of-it {
    grid-template-columns: minmax(0, 1fr);
    padding: var(--s-16);
  }
}
</style>
