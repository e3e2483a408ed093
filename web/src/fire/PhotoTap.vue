<script setup lang="ts">
import { useTemplateRef } from 'vue'
import { api, call, sentenceOf } from '../api/client'
import { newKey } from '../api/keys'
import { say } from '../kit/notice'
import { smaller } from './photo'
import { useThisFire } from './useFire'

/** A photo taken now, made small in this page, so that nothing of place and camera leaves it. */
const props = defineProps<{ letter: string }>()
const { id, now, look } = useThisFire()
const input = useTemplateRef<HTMLInputElement>('input')
async function take() {
  const file = input.value?.files?.[0]
  if (!file || !id.value) return
  try {
    const jpeg = await smaller(file)
    const tap = {
      note: '',
      word: '',
      celsius: '',
      grams: '',
      side: '',
      step: '',
      key: newKey(),
      what: 'photo',
      letter: props.letter,
      at: new Date(now.value).toISOString(),
    }
    await call(api.POST('/api/fire/{cook_id}/photo', { params: { path: { cook_id: id.value } }, body: { tap, jpeg } }))
    say('Photo noted.')
    await look()
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
