<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, reactive, ref, watch } from 'vue'
import { api, byField, call, sentenceOf, type Schemas } from '../api/client'
import { useChange } from '../api/change'
import { refresh } from '../api/kept'
import { usualBatch } from '../blend/kinds'
import CutChoice from '../shelf/CutChoice.vue'
import { useCatalogue } from '../api/catalogue'
import Field from '../kit/Field.vue'
import PieceBadge from '../draw/PieceBadge.vue'
import { usePreferences } from '../app/preferences'
import RankedChoice from '../kit/RankedChoice.vue'
import Tick from '../kit/Tick.vue'
import { nextSaturday } from '../kit/when'
import When from '../kit/When.vue'
import { sure } from '../kit/sure'

/** Begin a cook: its name and a cut; the rest has a default. A second way of seasoning is one tap. */
const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{ made: [] }>()
const queries = useQueryClient()
const { catalogue, cuts } = useCatalogue()
const { show } = usePreferences()
const { data: blends } = useQuery({ queryKey: ['blends'], queryFn: () => call(api.GET('/api/blends')), enabled: open })

const letters = 'ABCDEFGH'
const blank = () => ({ name: '', cut: '', mass: '', blend: '' })
const form = reactive({ name: '', serve: '', pieces: [blank()] })
/** Whether they are tasted against each other, as many as a sitting takes. */
const MOST_TASTED = 6
const tasting = ref(true)
watch(open, (now) => now && !form.serve && (form.serve = nextSaturday()), { immediate: true })
function add() {
  // the same cut on both sides is the fair test
  const { cut, mass } = sure(form.pieces[0])
  form.pieces.push({ ...blank(), cut, mass })
}
const errors = ref<Record<string, string>>({})
const failure = ref('')
/** A starting ratio of ours becomes a blend of the book when the cook begins. */
const RATIO = 'ratio:'
const choices = computed(() => [
  ...(blends.value ?? [])
    .filter((blend) => !blend.archived)
    .map((blend) => ({ value: blend.id, title: blend.name, words: `${blend.name} ${blend.kind}`, also: blend.kind })),
  ...(catalogue.value?.starters ?? []).map(({ name, kind, says }) => ({
    value: RATIO + name, title: name, words: `${name} ${kind} ${says}`, also: `${kind} to start from, ${says}`,
  })),
]) // prettier-ignore
watch(
  () => form.pieces[0]?.cut ?? '',
  (cut, before) => {
    for (const other of form.pieces.slice(1)) if (!other.cut || other.cut === before) other.cut = cut
  },
)
const usual = (cut: string) => (cuts.value.get(cut) ? show.value.mass(sure(cuts.value.get(cut)).usual_g) : '2.3 kg')

/** The blend that is meant, made from its starting ratio where it is one. */
async function blendOf(piece: { blend: string }): Promise<string | null> {
  if (!piece.blend.startsWith(RATIO)) return piece.blend || null
  const start = sure(sure(catalogue.value).starters.find((one) => RATIO + one.name === piece.blend))
  const { name, kind, lines } = start
  const body = { name, kind, lines, batch: usualBatch(kind) } as Schemas['BlendDocument']
  const made = await call(api.POST('/api/blends', { body }))
  // the other piece may be seasoned with the same
  for (const other of form.pieces) if (other.blend === RATIO + name) other.blend = made.id
  return made.id
}

const begin = useChange('cooks', async () => {
  failure.value = ''
  const missing: Record<string, string> = {}
  if (!form.name.trim()) missing.name = 'Give it a name, such as Sunday lunch.'
  if (!form.serve) missing.serve_at = 'Say on which day and at what time people sit down.'
  form.pieces.forEach((piece, at) => {
    if (!piece.cut) missing[`pieces.${at}.cut`] = 'Choose a cut.'
  })
  errors.value = missing
  if (Object.keys(missing).length) return
  try {
    const pieces = []
    for (const [at, piece] of form.pieces.entries()) {
      const { name, cut, mass } = piece
      const tasted = tasting.value && form.pieces.length > 1 && at < MOST_TASTED
      pieces.push({ name, cut, mass, blend_id: await blendOf(piece), tasted })
    }
    const body = { name: form.name, serve_at: form.serve, pieces }
    await call(api.POST('/api/cooks', { body }))
    await refresh(queries, ['blends'])
    emit('made')
    open.value = false
    Object.assign(form, { name: '', serve: '', pieces: [blank()] })
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
          <PieceBadge :letter="letters.charAt(at)" />
          <button v-if="form.pieces.length > 1" type="button" class="link" @click="form.pieces.splice(at, 1)">
            Take it off
          </button>
        </legend>
        <div>
          <span class="label">Cut</span>
          <CutChoice v-model="piece.cut" :label="`Cut of piece ${letters[at]}`" />
          <em v-if="errors[`pieces.${at}.cut`]" role="alert">{{ errors[`pieces.${at}.cut`] }}</em>
        </div>
        <Field
          v-model="piece.mass"
          label="Raw weight"
          :placeholder="`usual: ${usual(piece.cut)}`"
          :error="errors[`pieces.${at}.mass`]"
        />
        <div>
          <span class="label">Seasoned with</span>
          <RankedChoice
            v-model="piece.blend"
            :items="choices"
            :label="`Blend of piece ${letters[at]}`"
            nothing="No blend of that name."
          />
          <em v-if="errors[`pieces.${at}.blend_id`]" role="alert">{{ errors[`pieces.${at}.blend_id`] }}</em>
        </div>
        <Field
          v-model="piece.name"
          label="Called"
          placeholder="Rubbed, Marinated …"
          :error="errors[`pieces.${at}.name`]"
        />
      </fieldset>
      <div class="more">
        <v-btn v-if="form.pieces.length === 1" @click="add">A second way, to taste against it</v-btn>
        <v-btn v-else-if="form.pieces.length < letters.length" @click="add">Add a piece</v-btn>
        <Tick v-if="form.pieces.length > 1" v-model="tasting">
          taste {{ form.pieces.length > MOST_TASTED ? 'the first six' : 'them' }} against each other, blind
        </Tick>
      </div>
      <p v-if="failure" role="alert">{{ failure }}</p>
      <div class="ways">
        <v-btn class="solid" type="submit">Begin</v-btn>
        <v-btn class="quiet" @click="open = false">Not now</v-btn>
      </div>
    </form>
  </v-dialog>
</template>

<style scoped>
.new {
  padding: var(--s-24) var(--s-24);
  display: grid;
  gap: var(--s-16);
}
.two,
fieldset {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: var(--s-12);
  align-items: start;
}
fieldset {
  border: 0;
  border-top: 1px solid var(--line);
  padding: var(--s-10) 0 0;
  margin: 0;
}
legend {
  padding: 0 var(--s-10) 0 0;
  display: flex;
  gap: var(--s-10);
  align-items: center;
}
.more {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s-8) var(--s-16);
  align-items: center;
}
label span,
.label {
  display: block;
  padding-bottom: var(--s-4);
  font-size: var(--t-xs);
  color: var(--muted);
}
em,
p {
  color: var(--stop);
  font-style: normal;
  font-size: var(--t-xs);
  margin: 0;
}
.ways {
  display: flex;
  gap: var(--s-10);
}
@media (max-width: 720px) {
  .two,
  fieldset {
    grid-template-columns: 1fr;
  }
}
</style>
