<script setup lang="ts">
import { mdiDotsHorizontal } from '@mdi/js'
import { defineAsyncComponent } from 'vue'

/** What can be done with a row, behind one button of it. */
export interface Doing {
  text: string
  /** What it is called where it is read aloud: "Delete Sunday lunch". */
  label?: string
  does: () => unknown
}
defineProps<{ of: string; doings: Doing[] }>()
/** Comes when a menu is opened. */
const RowMenuList = defineAsyncComponent(() => import('./RowMenuList.vue'))
</script>

<template>
  <v-menu location="bottom end">
    <template #activator="{ props: opens }">
      <button v-bind="opens" type="button" class="dots" :aria-label="`More for ${of}`">
        <v-icon :icon="mdiDotsHorizontal" size="22" />
      </button>
    </template>
    <RowMenuList :doings="doings" />
  </v-menu>
</template>

<style scoped>
.dots {
  min-width: 44px;
  min-height: 44px;
  color: var(--link);
  border-radius: 12px;
}
.dots:hover {
  background: var(--tint);
}
</style>
