<script setup lang="ts">
import { computed } from 'vue'
import { useChange } from '../api/change'
import { notice } from '../kit/notice'

const open = computed({ get: () => notice.value !== null, set: (on) => !on && (notice.value = null) })
const undo = useChange('undo', async () => {
  const act = notice.value?.undo
  notice.value = null
  await act?.()
})
</script>

<template>
  <v-snackbar v-model="open" :timeout="9000" location="bottom" class="notice">
    {{ notice?.text }}
    <template #actions>
      <v-btn v-if="notice?.undo" class="on-dark" @click="undo">Undo</v-btn>
    </template>
  </v-snackbar>
</template>
