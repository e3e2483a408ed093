<script setup lang="ts">
import Field from './Field.vue'
import Kinds from './Kinds.vue'

/** Over a list: what is looked for, and of which kind. */
const sought = defineModel<string>({ required: true })
const kind = defineModel<string>('kind', { default: '' })
defineProps<{ label: string; placeholder?: string; kinds?: string[] }>()
</script>

<template>
  <div class="finder" role="search" :aria-label="label">
    <Field v-model="sought" type="search" :label="label" hidden-label :placeholder="placeholder" class="sought" />
    <Kinds v-if="kinds && kinds.length > 1" v-model="kind" :kinds="kinds" label="Only of a kind" none />
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
</style>
