<script setup lang="ts">
import { mdiBellOffOutline, mdiBellOutline } from '@mdi/js'
import { say } from '../kit/notice'
import { beep, mayNotify, soundOn } from './alarm'

/** Whether alarms sound in this browser: browsers want a tap for that once. */
async function change() {
  soundOn.value = !soundOn.value
  if (!soundOn.value) return
  beep()
  if (window.isSecureContext && 'Notification' in window && Notification.permission === 'default') {
    await Notification.requestPermission()
  }
  if (!mayNotify()) say('Alarms sound here as long as this page is open. Notifications want this machine or HTTPS.')
}
</script>

<template>
  <button type="button" class="sound" :aria-pressed="soundOn" aria-label="Sound alarms here" @click="change">
    <v-icon :icon="soundOn ? mdiBellOutline : mdiBellOffOutline" size="22" />
  </button>
</template>

<style scoped>
.sound {
  width: var(--tap);
  height: var(--tap);
  border-radius: 12px;
  border: 1.5px solid var(--line-strong) !important;
}
.sound[aria-pressed='true'] {
  background: var(--cobalt) !important;
  color: var(--on-cobalt) !important;
}
</style>
