<script setup lang="ts">
import { mdiClose, mdiDotsHorizontal, mdiLinkVariant, mdiLock, mdiLockOpenVariantOutline } from '@mdi/js'
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
    <button
      type="button"
      :class="{ held: line.lock }"
      :aria-label="`Lock of ${full}: ${locks[line.lock].says}`"
      :title="`Lock: ${locks[line.lock].says}`"
      @click="emit('lock', locks[line.lock].next)"
    >
      <v-icon :icon="locks[line.lock].icon" size="17" />
    </button>
    <button type="button" :aria-label="`More for ${full}`" :aria-expanded="!!open" @click="emit('more')">
      <v-icon :icon="mdiDotsHorizontal" size="19" />
    </button>
    <button type="button" :aria-label="`Remove ${full}`" @click="emit('remove')">
      <v-icon :icon="mdiClose" size="18" />
    </button>
  </span>
</template>

<style scoped>
.acts {
  display: flex;
}
.acts button {
  width: 30px;
  height: 34px;
  border-radius: 10px;
  color: var(--muted);
  padding: 0;
}
.acts button:hover {
  background: var(--tint);
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
  .acts button {
    width: 40px;
    height: 44px;
  }
}
</style>
