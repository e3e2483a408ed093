<script setup lang="ts">
import { useTemplateRef } from 'vue'
import { sentenceOf } from '../api/client'
import { say } from '../kit/notice'
import { smaller } from './photo'
import { useThisFire } from './useFire'

/** A photo taken now, made small in this page, so that nothing of place and camera leaves it. */
const props = defineProps<{ letter: string }>()
const { id, tapPhoto } = useThisFire()
const input = useTemplateRef<HTMLInputElement>('input')
async function take() {
  const file = input.value?.files?.[0]
  if (!file || !id.value) return
  try {
    const jpeg = await smaller(file)
    await tapPhoto(jpeg, props.letter)
    say('Photo noted.')
  } catch (failure) {
    say(sentenceOf(failure))
  }
  if (input.value) input.value.value = ''
}
</script>

<template>
  <button type="button" @click="input?.click()">
    Photo
    <input ref="input" type="file" accept="image/*" capture="environment" hidden @change="take" @click.stop />
  </button>
</template>
