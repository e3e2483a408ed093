<script setup lang="ts">
import type { SaveState } from './autosave'

/** Whether what is on the screen is in the book. */
defineProps<{ state: SaveState; refusal?: string }>()
const words: Record<SaveState, string> = {
  saved: 'Saved',
  waiting: 'Saving …',
  offline: 'Server lost: kept here, trying again',
  conflict: 'Changed elsewhere',
  refused: 'Not saved yet',
}
</script>

<template>
  <span class="save" :class="state" role="status" :title="state === 'refused' ? refusal : undefined">
    <i aria-hidden="true" />{{ words[state] }}
  </span>
</template>

<style scoped>
.save {
  display: inline-flex;
  align-items: center;
  gap: 7px;
  font-size: 14px;
  color: var(--muted);
  white-space: nowrap;
}
i {
  width: 9px;
  height: 9px;
  border-radius: 50%;
  border: 2px solid currentcolor;
}
.saved i {
  background: currentcolor;
}
.offline,
.refused,
.conflict {
  color: var(--caution);
}
</style>
