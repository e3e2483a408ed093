<script setup lang="ts">
import type { Doing } from './RowMenu.vue'

/** What a row's menu offers. */
defineProps<{ doings: Doing[] }>()
</script>

<template>
  <v-list role="menu">
    <v-list-item
      v-for="doing in doings"
      :key="doing.text"
      role="menuitem"
      :aria-label="doing.label"
      @click="doing.does()"
    >
      {{ doing.text }}
    </v-list-item>
  </v-list>
</template>
