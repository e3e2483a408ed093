<script setup lang="ts">
import { mdiDotsHorizontal } from '@mdi/js'
import { ref, shallowRef, type Component } from 'vue'

/** What can be done with a row, behind one button of it. */
export interface Doing {
  text: string
  /** What it is called where it is read aloud: "Delete Sunday lunch". */
  label?: string
  does: () => unknown
}
defineProps<{ of: string; doings: Doing[] }>()
const open = ref(false)
const list = shallowRef<Component>()
/** The list comes when a menu is first reached, and the menu opens when it is there: it does not move under a finger. */
const load = async () => (list.value ??= (await import('./RowMenuList.vue')).default)
async function toggle() {
  await load()
  open.value = !open.value
}
</script>

<template>
  <v-menu v-model="open" location="bottom end" :open-on-click="false">
    <template #activator="{ props: opens }">
      <button v-bind="opens" type="button" class="dots" :aria-label="`More for ${of}`" @focus="load" @click="toggle">
        <v-icon :icon="mdiDotsHorizontal" size="22" />
      </button>
    </template>
    <component :is="list" v-if="list" :doings="doings" />
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
