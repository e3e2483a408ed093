<script setup lang="ts">
import Field from './Field.vue'
/** Over a list: what is looked for, and of which kind. */
const sought = defineModel<string>({ required: true })
const kind = defineModel<string>('kind', { default: '' })
defineProps<{ label: string; placeholder?: string; kinds?: string[] }>()
</script>

<template>
  <div class="finder" role="search" :aria-label="label">
    <Field v-model="sought" type="search" :label="label" hidden-label :placeholder="placeholder" class="sought" />
    <div v-if="kinds && kinds.length > 1" class="kinds" role="group" aria-label="Only of a kind">
      <button
        v-for="one in kinds"
        :key="one"
        type="button"
        :aria-pressed="kind === one"
        @click="kind = kind === one ? '' : one"
      >
        {{ one }}
      </button>
    </div>
  </div>
</template>

<style scoped>
.finder {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s-8) var(--s-12);
  align-items: center;
  margin-bottom: var(--s-12);
}
.sought {
  flex: 0 1 300px;
}
.sought :deep(.v-field) {
  background: var(--plate);
}
.kinds {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s-4);
}
button {
  padding: 0 var(--s-12);
  min-height: var(--tap);
  border-radius: 19px;
  font-size: var(--t-s);
  color: var(--muted);
}
button[aria-pressed='true'] {
  background: var(--plate);
  box-shadow: 0 0 0 1.5px var(--rim);
  color: var(--ink);
  font-weight: 600;
}
</style>
