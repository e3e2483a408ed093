<script setup lang="ts">
import { mdiClose, mdiDotsHorizontal, mdiLinkVariant, mdiLock, mdiLockOpenVariantOutline } from '@mdi/js'
import IconButton from '../kit/IconButton.vue'
import type { LineDoc } from './useBlend'

/** What is done with a line in one tap: held, looked at further, taken out. */
defineProps<{ line: LineDoc; full: string; open?: boolean }>()
const emit = defineEmits<{ lock: [to: LineDoc['lock']]; more: []; remove: [] }>()
const locks = {
  '': { icon: mdiLockOpenVariantOutline, says: 'free', next: 'share' },
  share: { icon: mdiLock, says: 'its share is held', next: 'ratio' },
  ratio: { icon: mdiLinkVariant, says: 'its ratio to the other lines held so is held', next: '' },
} as const
</script>

<template>
  <span class="acts">
    <IconButton
      :class="{ held: line.lock }"
      :label="`Lock of ${full}: ${locks[line.lock].says}`"
      :title="`Lock: ${locks[line.lock].says}`"
      :icon="locks[line.lock].icon"
      @click="emit('lock', locks[line.lock].next)"
    />
    <IconButton
      :label="`More for ${full}`"
      :aria-expanded="!!open"
      :icon="mdiDotsHorizontal"
      :size="19"
      @click="emit('more')"
    />
    <IconButton :label="`Remove ${full}`" :icon="mdiClose" :size="18" @click="emit('remove')" />
  </span>
</template>

<style scoped>
.acts {
  display: flex;
}
.acts .held {
  color: var(--link);
}
@media (max-width: 720px) {
  .acts {
    grid-column: 3;
    grid-row: 1;
    justify-content: end;
  }
}
</style>
