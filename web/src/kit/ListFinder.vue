<script setup lang="ts">
/** Over a list: what is looked for, and of which kind. */
const sought = defineModel<string>({ required: true })
const kind = defineModel<string>('kind', { default: '' })
defineProps<{ label: string; placeholder?: string; kinds?: string[] }>()
</script>

<template>
  <div class="finder" role="search" :aria-label="label">
    <input v-model="sought" type="search" :aria-label="label" :placeholder="placeholder" autocomplete="off" />
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
  gap: 8px 12px;
  align-items: center;
  margin-bottom: 12px;
}
.finder input {
  flex: 0 1 300px;
  background: var(--plate);
}
.kinds {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
}
button {
  padding: 0 12px;
  min-height: var(--tap);
  border-radius: 19px;
  font-size: 14px;
  color: var(--muted);
}
button[aria-pressed='true'] {
  background: var(--plate);
  box-shadow: 0 0 0 1.5px var(--rim);
  color: var(--ink);
  font-weight: 600;
}
</style>
