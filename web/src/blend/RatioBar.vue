<script setup lang="ts">
import { computed } from 'vue'
import Choice from '../kit/Choice.vue'
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
    <label v-if="written === 'relative'" class="to">
      <span>to</span>
      <select
        :value="base"
        aria-label="Base line, which counts 1"
        @change="emit('write', 'relative', Number(($event.target as HTMLSelectElement).value))"
      >
        <option v-for="(name, at) in names" :key="at" :value="at">{{ name }} = 1</option>
      </select>
    </label>
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
  gap: 8px 14px;
}
.to {
  display: flex;
  align-items: center;
  gap: 8px;
  max-width: 240px;
}
.muted {
  font-size: 14px;
}
</style>
