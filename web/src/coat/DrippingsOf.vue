<script setup lang="ts">
import { useRouter } from 'vue-router'
import { api, call, type Schemas } from '../api/client'
import { useChange } from '../api/change'
import { say } from '../kit/notice'
import { coatHere, pieceHere } from './useCoat'

/** What drips out, as a blend: for the pot or a sauce, or for the needle. */
const coat = coatHere()
const piece = pieceHere()
const router = useRouter()
const keep = useChange('blends', async (kind: NonNullable<Schemas['DrippingsDocument']['kind']>) => {
  await coat.autosave.flush()
  const body = { letter: piece.value.letter, kind }
  const made = await call(api.POST('/api/cooks/{cook_id}/drippings', { params: { path: coat.path() }, body }))
  say(
    kind === 'injection'
      ? `“${made.name}” is an injection now; keep it warm, its fat sets in a needle.`
      : `“${made.name}” is a blend now; put it into a sauce or a pot.`,
  )
  await router.push(`/blend/${made.blend_id}`)
})
</script>

<template>
  <v-btn @click="keep('cooking liquid')">Make a blend of them</v-btn>
  <v-btn @click="keep('injection')">For the needle</v-btn>
</template>
