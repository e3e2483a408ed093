<script setup lang="ts">
import { computed } from 'vue'
import Choice from '../kit/Choice.vue'
import Select from '../kit/Select.vue'
import type { Doc } from './useBlend'

/** How the numbers of a ratio are written, and whether its total is free. */
const props = defineProps<{ written: Doc['written']; total: Doc['total']; base: number; names: string[] }>()
const emit = defineEmits<{ write: [as: Doc['written'], base: number]; total: [total: Doc['total']] }>()

const as = computed({ get: () => props.written, set: (to) => emit('write', to, props.base) })
const fixed = computed({ get: () => props.total, set: (to) => emit('total', to) })
</script>

<template>
  <div class="ratio">
    <Choice
      v-model="as"
      label="Numbers as"
      hidden-label
      :options="[
        { value: 'parts', text: 'Parts' },
        { value: 'percent', text: 'Percent' },
        { value: 'relative', text: 'Relative' },
      ]"
    />
    <Select
      v-if="written === 'relative'"
      :model-value="base"
      label="Base line, which counts 1"
      hidden-label
      class="to"
      :options="names.map((name, at) => ({ value: at, title: `${name} = 1` }))"
      @update:model-value="emit('write', 'relative', $event ?? 0)"
    />
    <Choice
      v-else-if="written === 'parts'"
      v-model="fixed"
      label="Total"
      hidden-label
      :options="[
        { value: 'free', text: 'total free' },
        { value: 'fixed', text: 'fixed' },
      ]"
    />
    <span v-else class="muted">of 100, the others give way</span>
  </div>
</template>

<style scoped>
.ratio {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s-8) var(--s-14);
}
.to {
  display: flex;
  align-items: center;
  gap: var(--s-8);
  max-width: 240px;
}
.muted {
  font-size: var(--t-s);
}
@media (max-width: 720px) {
  .ratio {
    flex-wrap: nowrap;
    gap: var(--s-4);
  }
  .ratio :deep(.options) {
    flex-wrap: nowrap;
  }
  .ratio :deep(.choice label) {
    padding: 0 var(--s-6);
    font-size: var(--t-xs);
  }
}
</style>
