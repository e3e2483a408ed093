<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { useDebounceFn } from '@vueuse/core'
import { computed, reactive, ref, shallowRef, watch } from 'vue'
import { api, byField, call, Refusal, sentenceOf, type Schemas } from '../api/client'
import { refresh } from '../api/kept'
import { cutWords, useCatalogue } from '../ui/catalogue'
import Choice from '../ui/Choice.vue'
import Field from '../ui/Field.vue'
import { useNewest } from '../ui/newest'
import { once } from '../ui/once'
import { usePreferences } from '../ui/preferences'
import RankedChoice from '../ui/RankedChoice.vue'
import OwnCutParts from './OwnCutParts.vue'

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
const doc = reactive<Doc>(blank())
const errors = ref<Record<string, string>>({})
const reads = shallowRef<Schemas['OwnCutReadOut'] | null>(null)
const touched = ref(false)
watch(
  open,
  (now) => {
    if (!now) return
    Object.assign(doc, blank(), structuredClone(props.own?.typed ?? {}))
    errors.value = {}
    reads.value = props.own?.reads ?? null
    touched.value = false
  },
  { immediate: true },
)
const like = computed(() => cuts.value.get(doc.like))
const items = computed(() =>
  (catalogue.value?.cuts ?? [])
    .filter((cut) => cut.key !== props.own?.key && !cut.retired)
    .map((cut) => ({ value: cut.key, title: cut.name, words: cutWords(cut), also: cut.other_names.join(', ') })),
)
/** Faces and trim begin as those of the nearest cut, to be changed. */
function nearest(key: string) {
  const cut = cuts.value.get(key)
  if (!cut) return
  const share = (value: number) => String(Math.round(value * 10) / 10)
  doc.faces = cut.faces.map((name, at) => ({ name, share: share(cut.face_shares[at]) }))
  doc.trims = cut.trims.map((trim) => ({ ...trim, share: share(trim.share) })) as Doc['trims']
}
const shapes = computed(() => (catalogue.value?.shapes ?? []).map((value) => ({ value, text: SHAPES[value] ?? value })))
const SHAPES: Record<string, string> = { ellipsoid: 'rounded', box: 'slab', cylinder: 'log' }
const shape = computed({ get: () => doc.shape || like.value?.shape || '', set: (value) => (doc.shape = value) })

const newest = useNewest()
const ask = useDebounceFn(async () => {
  const body = { ...doc }
  const came = await newest.ask((signal) => call(api.POST('/api/shelf/own-cuts/read', { body, signal })))
  if (!came) return
  if ('answer' in came) {
    reads.value = came.answer
    errors.value = {}
  } else if (came.failure instanceof Refusal) {
    reads.value = null
    if (touched.value) errors.value = byField(came.failure)
  }
}, 150)
watch(doc, () => open.value && ask(), { deep: true })

const done = async (key: string) => {
  await refresh(queries, ['catalogue'], ['own cuts'], ['own names'], ['cooks'])
  open.value = false
  emit('made', key)
}
const failed = (failure: unknown) =>
  (errors.value = failure instanceof Refusal ? byField(failure) : { name: sentenceOf(failure) })
const keep = once(async () => {
  touched.value = true
  try {
    const kept = props.own
      ? await call(
          api.PUT('/api/shelf/own-cuts/{own_id}', {
            params: { path: { own_id: props.own.id } },
            body: { ...doc, version: props.own.version },
          }),
        )
      : await call(api.POST('/api/shelf/own-cuts', { body: { ...doc } }))
    await done(kept.key)
  } catch (failure) {
    failed(failure)
  }
})
/** It is no other cut, only called otherwise here. */
const onlyName = once(async () => {
  try {
    await call(api.PUT('/api/shelf/own-names', { body: { name: doc.name, means: doc.like } }))
    await done(doc.like)
  } catch (failure) {
    failed(failure)
  }
})
</script>

<template>
  <v-dialog v-model="open" max-width="660" aria-label="A cut of your own" scrollable>
    <form class="plate own" novalidate @submit.prevent="keep">
      <h2>{{ own ? `Change ${own.name}` : 'A cut of your own' }}</h2>
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
      <div class="ways">
        <p v-if="reads" class="reads" role="status">
          <b>{{ show.area(reads.area_cm2) }}</b> of surface at {{ show.mass(reads.mass_g) }}, give or take
          {{ Math.round(reads.error) }} %; {{ show.mass(reads.edible_g) }} of it to eat, bought as
          {{ show.mass(reads.bought_g) }}.
          <template v-if="reads.measured_g && Math.abs(reads.measured_g / reads.mass_g - 1) > 0.1">
            By its measures it would weigh {{ show.mass(reads.measured_g) }}: another shape may be nearer.
          </template>
        </p>
        <v-btn type="submit" class="solid">{{ own ? 'Keep the change' : 'Put it in the catalogue' }}</v-btn>
        <v-btn class="quiet" @click="open = false">Leave it</v-btn>
      </div>
    </form>
  </v-dialog>
</template>

<style scoped>
/* as high from the start as it will be: what is pointed at does not move when an answer comes */
.own {
  height: min(780px, 90dvh);
  padding: 22px 24px;
  display: flex;
  flex-direction: column;
  gap: 14px;
  overflow-y: auto;
}
p {
  margin: 0;
}
.label {
  font-size: 13px;
  color: var(--muted);
}
.fields {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(105px, 1fr));
  gap: 10px;
}
.reads {
  flex-basis: 100%;
  min-height: 2.9em;
}
.says {
  color: var(--stop);
  font-size: 14px;
}
/* in sight whatever the screen's height: the form scrolls behind it */
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  position: sticky;
  bottom: -22px;
  margin: auto -24px -22px;
  padding: 12px 24px 16px;
  background: var(--plate);
  border-top: 1px solid var(--line);
}
</style>
