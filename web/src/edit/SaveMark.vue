<script setup lang="ts">
import { computed } from 'vue'
import type { SaveState } from './autosave'

/** Whether what is on the screen is in the book. */
const props = defineProps<{ state: SaveState; refusal?: string; wrong?: number }>()
const words: Record<SaveState, string> = {
  saved: 'Saved',
  waiting: 'Saving …',
  offline: 'Server lost: kept here, trying again',
  conflict: 'Changed elsewhere',
  refused: 'Not saved yet',
}
/** What is saved although a few fields could not be read, as they were typed. */
const butFor = computed(() =>
  props.state === 'saved' && props.wrong
    ? `, ${props.wrong === 1 ? 'one field' : `${props.wrong} fields`} not understood`
    : '',
)
</script>

<template>
  <span class="save" :class="state" role="status" :title="state === 'refused' ? refusal : undefined">
    <i aria-hidden="true" />{{ words[state] }}{{ butFor }}
  </span>
</template>

<style scoped>
.save {
  display: inline-flex;
  align-items: center;
  gap: var(--s-8);
  font-size: var(--t-s);
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
