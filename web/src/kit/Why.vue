<script setup lang="ts">
import type { Schemas } from '../api/client'
import Working from './Working.vue'

/** Any figure of the core, asked why: it opens its working. */
defineProps<{ figure: Schemas['Figure']; of: string }>()
</script>

<template>
  <v-menu :close-on-content-click="false" location="bottom" max-width="460" scroll-strategy="reposition">
    <template #activator="{ props: opens }">
      <button v-bind="opens" type="button" class="why" :class="{ number: $slots.default }">
        <slot>why</slot><span class="sr-only">, why: {{ of }}</span>
      </button>
    </template>
    <Working :figure="figure" :of="of" />
  </v-menu>
</template>

<style scoped>
.why {
  position: relative;
  font-size: var(--t-xs);
  color: var(--link);
  text-decoration: underline;
  text-underline-offset: 3px;
  text-decoration-thickness: 1px;
  padding: var(--s-2) var(--s-4);
  border-radius: 6px;
}
.why.number {
  color: inherit;
  font: inherit;
  font-size: inherit;
  padding: 0;
  text-decoration-style: dotted;
  text-decoration-color: var(--line-strong);
  text-underline-offset: 4px;
  white-space: nowrap;
}
</style>
