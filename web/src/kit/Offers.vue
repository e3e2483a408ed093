<script setup lang="ts">
/** What may be meant, to take by a tap; with `likely` the first of them is. */
defineProps<{ offers: { key: string; text: string }[]; likely?: boolean }>()
defineEmits<{ take: [key: string] }>()
</script>

<template>
  <div v-if="offers.length" class="offers">
    <button
      v-for="(one, at) in offers"
      :key="one.key"
      type="button"
      :class="{ likely: likely && !at }"
      @click="$emit('take', one.key)"
    >
      {{ one.text }}
    </button>
  </div>
</template>

<style scoped>
.offers {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s-6);
}
button {
  border: 1.5px solid var(--rim);
  border-radius: 18px;
  padding: var(--s-4) var(--s-14);
  min-height: 36px;
  background: var(--plate);
}
.likely {
  background: var(--cobalt);
  border-color: var(--cobalt);
  color: var(--on-cobalt);
  font-weight: 600;
}
@media (max-width: 720px) {
  button {
    min-height: 44px;
  }
}
</style>
