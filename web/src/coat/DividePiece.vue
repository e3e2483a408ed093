<script setup lang="ts">
import { reactive, ref } from 'vue'
import { byField, sentenceOf } from '../api/client'
import { useChange } from '../api/change'
import Choice from '../kit/Choice.vue'
import Field from '../kit/Field.vue'
import { say } from '../kit/notice'
import Tick from '../kit/Tick.vue'
import { nextSaturday } from '../kit/when'
import When from '../kit/When.vue'
import { coatHere, pieceHere } from './useCoat'

/** Divide a joint: part of it becomes another piece of this cook, or is cooked on another day. */
const open = defineModel<boolean>({ required: true })
const coat = coatHere()
const piece = pieceHere()
const form = reactive({ mass: '', to: 'here', name: '', serve: nextSaturday(), frozen: false })
const errors = ref<Record<string, string>>({})
const failure = ref('')
const divide = useChange(
  'cooks',
  async () => {
    errors.value = {}
    failure.value = ''
    if (!form.mass.trim()) return void (errors.value = { mass: 'Write what the part weighs, such as 800 g.' })
    const later = form.to === 'later'
    if (later && !form.serve)
      return void (errors.value = { serve_at: 'Say on which day and at what time people sit down.' })
    const found = await coat.divide({
      mass: form.mass,
      name: form.name,
      serve_at: later ? form.serve : null,
      frozen: later && form.frozen,
    })
    open.value = false
    say(found.other ? `“${found.other_name}” is a cook of its own now.` : 'The part is a piece of its own now.')
  },
  {
    refused: (problem) => {
      errors.value = byField(problem)
      if (!Object.keys(errors.value).length) failure.value = sentenceOf(problem)
    },
  },
)
</script>

<template>
  <v-dialog v-model="open" max-width="480" aria-label="Divide it">
    <form class="plate divide" novalidate @submit.prevent="divide()">
      <h2>Divide {{ piece.name }}</h2>
      <Field
        v-model="form.mass"
        label="Take off it"
        placeholder="800 g"
        autofocus
        :hint="`It weighs ${piece.mass} now.`"
        :error="errors.mass"
        :maxlength="160"
      />
      <Choice
        v-model="form.to"
        label="The part is"
        :options="[
          { value: 'here', text: 'another piece here' },
          { value: 'later', text: 'cooked another day' },
        ]"
      />
      <When v-if="form.to === 'later'" v-model="form.serve" label="People sit down" :error="errors.serve_at" />
      <Tick v-if="form.to === 'later'" v-model="form.frozen">frozen meanwhile, thawed 24 h in the fridge before</Tick>
      <p v-if="form.to === 'later' && !form.frozen" class="muted">
        Raw joints keep three to five days in the fridge as usual guidance; freeze it for longer. Local rules go first.
      </p>
      <Field v-model="form.name" label="Called" :placeholder="`Part of ${piece.name}`" :error="errors.name" />
      <p v-if="failure || errors.letter || errors.pieces" role="alert">
        {{ failure || errors.letter || errors.pieces }}
      </p>
      <div class="ways">
        <v-btn class="solid" type="submit">Divide</v-btn>
        <v-btn class="quiet" @click="open = false">Not now</v-btn>
      </div>
    </form>
  </v-dialog>
</template>

<style scoped>
.divide {
  padding: var(--s-24);
  display: grid;
  gap: var(--s-14);
}
p {
  margin: 0;
  font-size: var(--t-s);
}
[role='alert'] {
  color: var(--stop);
}
.ways {
  display: flex;
  gap: var(--s-8);
}
</style>
