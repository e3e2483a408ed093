<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, call, type Schemas } from '../api/client'
import { refresh } from '../api/kept'
import { cutWords, useCatalogue } from '../api/catalogue'
import Choice from '../kit/Choice.vue'
import Field from '../kit/Field.vue'
import { usePreferences } from '../app/preferences'
import RankedChoice from '../kit/RankedChoice.vue'
import OwnCutParts from './OwnCutParts.vue'
import OwnForm from './OwnForm.vue'
import { useOwnForm } from './useOwnForm'
import { sure } from '../kit/sure'

/** A cut of one's own: the nearest of the catalogue, three measures, bone, faces and trim; what it comes to below. */
type Doc = Required<Schemas['OwnCutDocument']>
const open = defineModel<boolean>({ required: true })
const props = defineProps<{ name?: string; own?: Schemas['OwnCutOut'] }>()
const emit = defineEmits<{ made: [key: string] }>()
const queries = useQueryClient()
const { catalogue, cuts } = useCatalogue()
const { show } = usePreferences()

const blank = (): Doc => ({
  name: props.name ?? '', like: '', shape: '', animal: '', length: '', width: '', thickness: '', mass: '', bone: '',
  faces: [], trims: [],
}) // prettier-ignore
const { doc, errors, reads, keeping } = useOwnForm<Doc, Schemas['OwnCutReadOut']>({
  open,
  blank,
  own: () => props.own,
  read: (body, signal) => call(api.POST('/api/shelf/own-cuts/read', { body, signal })),
})
const like = computed(() => cuts.value.get(doc.like))
const items = computed(() =>
  (catalogue.value?.cuts ?? [])
    .filter((cut) => !cut.key.startsWith('own-')) // only what nobody changes
    .map((cut) => ({ value: cut.key, title: cut.name, words: cutWords(cut), also: cut.other_names.join(', ') })),
)
/** Faces and trim begin as those of the nearest cut, to be changed. */
function nearest(key: string) {
  const cut = cuts.value.get(key)
  if (!cut) return
  const share = (value: number) => String(Math.round(value * 10) / 10)
  doc.faces = cut.faces.map((name, at) => ({ name, share: share(sure(cut.face_shares[at])) }))
  doc.trims = cut.trims.map((trim) => ({ ...trim, share: share(trim.share) })) as Doc['trims']
}
const shapes = computed(() => (catalogue.value?.shapes ?? []).map((value) => ({ value, text: SHAPES[value] ?? value })))
const SHAPES: Record<string, string> = { ellipsoid: 'rounded', box: 'slab', cylinder: 'log' }
const shape = computed({ get: () => doc.shape || like.value?.shape || '', set: (value) => (doc.shape = value) })

const done = async (key: string) => {
  await refresh(queries, ['catalogue'], ['own cuts'], ['own names'], ['cooks'])
  emit('made', key)
}
const keep = keeping(async () => {
  const kept = props.own
    ? await call(
        api.PUT('/api/shelf/own-cuts/{own_id}', {
          params: { path: { own_id: props.own.id } },
          body: { ...doc, version: props.own.version },
        }),
      )
    : await call(api.POST('/api/shelf/own-cuts', { body: { ...doc } }))
  await done(kept.key)
})
/** It is no other cut, only called otherwise here. */
const onlyName = keeping(async () => {
  await call(api.PUT('/api/shelf/own-names', { body: { name: doc.name, means: doc.like } }))
  await done(doc.like)
})
</script>

<template>
  <OwnForm v-model="open" label="A cut of your own" :changing="own?.name" @keep="keep">
    <Field v-model="doc.name" label="Its name" placeholder="Lock-keeper’s roll" :error="errors.name" />
    <div>
      <span class="label">Nearest to</span>
      <RankedChoice
        v-model="doc.like"
        :items="items"
        label="Nearest cut"
        nothing="No cut of that name; try the animal."
        @update:model-value="nearest"
      />
      <p v-if="errors.like" class="says" role="alert">{{ errors.like }}</p>
      <p v-if="like && !own && doc.name.trim()" class="muted">
        Cooked and done as that one is.
        <button type="button" class="link" @click="onlyName">It is only another name for it</button>
      </p>
    </div>
    <template v-if="like">
      <Choice v-model="shape" label="Shaped like" :options="shapes" :error="errors.shape" />
      <div class="fields">
        <Field v-model="doc.length" label="Length of one" placeholder="24 cm" :error="errors.length" />
        <Field v-model="doc.width" label="Width" placeholder="12 cm" :error="errors.width" />
        <Field v-model="doc.thickness" label="Thickness" placeholder="8 cm" :error="errors.thickness" />
        <Field v-model="doc.mass" label="It weighed" placeholder="1.6 kg" :error="errors.mass" />
        <Field
          v-model="doc.bone"
          label="Bone, %"
          :placeholder="String(Math.round(like.bone_share * 100))"
          :error="errors.bone"
        />
      </div>
      <OwnCutParts v-model:faces="doc.faces" v-model:trims="doc.trims" :errors="errors" />
    </template>
    <template #reads
      ><template v-if="reads">
        <b>{{ show.area(reads.area_cm2) }}</b> of surface at {{ show.mass(reads.mass_g) }}, give or take
        {{ Math.round(reads.error) }} %; {{ show.mass(reads.edible_g) }} of it to eat, bought as
        {{ show.mass(reads.bought_g) }}.
        <template v-if="reads.measured_g && Math.abs(reads.measured_g / reads.mass_g - 1) > 0.1">
          By its measures it would weigh {{ show.mass(reads.measured_g) }}: another shape may be nearer.
        </template>
      </template></template
    >
  </OwnForm>
</template>

<style scoped>
p {
  margin: 0;
}
.label {
  font-size: var(--t-xs);
  color: var(--muted);
}
.fields {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(105px, 1fr));
  gap: var(--s-10);
}
.says {
  color: var(--stop);
  font-size: var(--t-s);
}
</style>
