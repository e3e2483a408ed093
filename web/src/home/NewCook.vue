<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, reactive, ref, watch } from 'vue'
import { api, byField, call, sentenceOf } from '../api/client'
import PieceBadge from '../ui/PieceBadge.vue'
import CutChoice from '../shelf/CutChoice.vue'
import RankedChoice from '../ui/RankedChoice.vue'
import Field from '../ui/Field.vue'
import { once } from '../ui/once'
import When from '../ui/When.vue'
import { fromTyped } from '../ui/units'

/** Begin a cook: a piece or more, how each is seasoned, and when it is served. */
const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{ made: [] }>()
const { data: blends } = useQuery({ queryKey: ['blends'], queryFn: () => call(api.GET('/api/blends')), enabled: open })

const letters = 'ABCDEFGH'
const form = reactive({
  name: '',
  serve: '',
  pieces: [blank('Rubbed'), blank('Marinated')],
})
/** Whether the first two are tasted against each other. */
const tasting = ref(true)
function blank(name: string) {
  return { name, cut: '', mass: '', blend_id: '' }
}
function add() {
  form.pieces.push({ ...blank(`Piece ${letters[form.pieces.length]}`), cut: form.pieces[0].cut })
}
const errors = ref<Record<string, string>>({})
const failure = ref('')
const choices = computed(() =>
  (blends.value ?? []).map((blend) => ({ value: blend.id, title: blend.name, words: `${blend.name} ${blend.kind}` })),
)
// the same cut on both sides is the fair test, so the others follow the first until they are chosen
watch(
  () => form.pieces[0].cut,
  (cut, before) => {
    for (const other of form.pieces.slice(1)) if (!other.cut || other.cut === before) other.cut = cut
  },
)

const begin = once(async () => {
  errors.value = {}
  failure.value = ''
  const missing: Record<string, string> = {}
  if (!form.serve) missing.serve_at = 'Say when people sit down.'
  form.pieces.forEach((piece, at) => {
    if (!piece.blend_id) missing[`pieces.${at}.blend_id`] = 'Choose a blend for this piece.'
    if (!piece.cut) missing[`pieces.${at}.cut`] = 'Choose a cut.'
  })
  if (Object.keys(missing).length) {
    errors.value = missing
    return
  }
  try {
    const pieces = form.pieces.map((one, at) => ({ ...one, tasted: tasting.value && form.pieces.length > 1 && at < 2 }))
    const body = { name: form.name, serve_at: fromTyped(form.serve) ?? form.serve, pieces }
    await call(api.POST('/api/cooks', { body }))
    emit('made')
    open.value = false
  } catch (problem) {
    errors.value = byField(problem)
    if (!Object.keys(errors.value).length) failure.value = sentenceOf(problem)
  }
})
</script>

<template>
  <v-dialog v-model="open" max-width="640" aria-label="New cook">
    <form class="plate new" novalidate @submit.prevent="begin">
      <h2>New cook</h2>
      <div class="two">
        <Field v-model="form.name" label="What is it called" placeholder="Sunday lunch" :error="errors.name" />
        <When v-model="form.serve" label="People sit down" :error="errors.serve_at" />
      </div>
      <fieldset v-for="(piece, at) in form.pieces" :key="at">
        <legend>
          <PieceBadge :letter="letters[at]" />
          <button v-if="form.pieces.length > 1" type="button" class="link" @click="form.pieces.splice(at, 1)">
            Take it off
          </button>
        </legend>
        <Field v-model="piece.name" label="Name" :error="errors[`pieces.${at}.name`]" />
        <Field
          v-model="piece.mass"
          label="Raw weight"
          placeholder="2.3 kg or 5 lb 1 oz"
          :error="errors[`pieces.${at}.mass`]"
        />
        <label>
          <span>Cut</span>
          <CutChoice v-model="piece.cut" :label="`Cut of piece ${letters[at]}`" />
          <em v-if="errors[`pieces.${at}.cut`]" role="alert">{{ errors[`pieces.${at}.cut`] }}</em>
        </label>
        <label>
          <span>Blend</span>
          <RankedChoice
            v-model="piece.blend_id"
            :items="choices"
            :label="`Blend of piece ${letters[at]}`"
            nothing="No blend of that name."
          />
          <em v-if="errors[`pieces.${at}.blend_id`]" role="alert">{{ errors[`pieces.${at}.blend_id`] }}</em>
        </label>
      </fieldset>
      <div class="more">
        <v-btn v-if="form.pieces.length < letters.length" @click="add">Add a piece</v-btn>
        <label v-if="form.pieces.length > 1">
          <input v-model="tasting" type="checkbox" />
          taste {{ form.pieces.length > 2 ? 'the first two' : 'them' }} against each other, blind
        </label>
      </div>
      <p v-if="failure" role="alert">{{ failure }}</p>
      <div class="ways">
        <v-btn class="solid" type="submit">Begin</v-btn>
        <v-btn @click="open = false">Not now</v-btn>
      </div>
    </form>
  </v-dialog>
</template>

<style scoped>
.new {
  padding: 22px 26px;
  display: grid;
  gap: 16px;
}
.two,
fieldset {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 12px;
  align-items: start;
}
fieldset {
  border: 0;
  border-top: 1px solid var(--line);
  padding: 10px 0 0;
  margin: 0;
}
legend {
  padding: 0 10px 0 0;
  display: flex;
  gap: 10px;
  align-items: center;
}
.more {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 16px;
  align-items: center;
}
.more label {
  display: flex;
  gap: 8px;
  align-items: center;
  font-size: 14px;
}
.more input {
  width: 18px;
  height: 18px;
  accent-color: var(--cobalt);
}
label span {
  font-size: 13px;
  color: var(--muted);
}
em,
p {
  color: var(--stop);
  font-style: normal;
  font-size: 13px;
  margin: 0;
}
.ways {
  display: flex;
  gap: 10px;
}
@media (max-width: 720px) {
  .two,
  fieldset {
    grid-template-columns: 1fr;
  }
}
</style>
