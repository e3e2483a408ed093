<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, nextTick, ref, watch } from 'vue'
import { api, call, sentenceOf, type Schemas } from '../api/client'
import { useAutosave } from '../ui/autosave'
import ConflictBar from '../ui/ConflictBar.vue'
import { differences } from '../ui/differences'
import { say } from '../ui/notice'
import { useReading } from '../ui/reading'
import SaveMark from '../ui/SaveMark.vue'
import TitleInput from '../ui/TitleInput.vue'
import { useUndo } from '../ui/undo'
import { asTyped, fromTyped } from '../ui/units'
import ArmColumn from './ArmColumn.vue'

const props = defineProps<{ id?: string }>()
type Out = Schemas['CookOut']
type Doc = Pick<Schemas['CookSave'], 'name' | 'serve_at' | 'arms'>

const queries = useQueryClient()
const doc = ref<Doc | null>(null)
const cook = ref<Out | null>(null)
const { reading, errors, ask } = useReading<(Schemas['ArmReadingOut'] | null)[]>()

const typed = (out: Out): Doc => ({
  name: out.name,
  serve_at: out.serve_at,
  arms: out.arms.map((arm) => ({
    label: arm.label,
    name: arm.name,
    piece: {
      cut: arm.piece.cut,
      mass: arm.piece.mass,
      count: arm.piece.count,
      coat_bare_face: arm.piece.coat_bare_face,
      length: arm.piece.length,
      width: arm.piece.width,
      thickness: arm.piece.thickness,
    },
    layers: arm.layers.map((layer) => ({
      kind: layer.kind as 'rub' | 'marinade' | 'salt',
      blend_id: layer.blend_id,
      revision: layer.revision,
      coat: layer.coat,
      surface: layer.surface,
      vessel: layer.vessel,
      grind: layer.grind,
      percent: layer.percent,
      hold: layer.hold,
      hold_c: layer.hold_c,
    })),
  })),
})
const path = () => ({ cook_id: cook.value!.id })
const autosave = useAutosave<Doc, Out>({
  key: () => `cook:${cook.value?.id}`,
  doc,
  typed,
  save: (body, version) =>
    call(api.PUT('/api/cooks/{cook_id}', { params: { path: path() }, body: { ...body, version } })),
  saved: (out) => {
    cook.value = out
    void queries.invalidateQueries({ queryKey: ['home'] })
  },
})
const history = useUndo(doc, () => autosave.touch())

const { data: loaded, error } = useQuery({
  queryKey: ['coat', props.id ?? 'in hand'],
  queryFn: async (): Promise<Out | null> =>
    props.id
      ? call(api.GET('/api/cooks/{cook_id}', { params: { path: { cook_id: props.id } } }))
      : (await call(api.GET('/api/home'))).cook,
  gcTime: 0,
  staleTime: 0,
})
watch(
  loaded,
  (out) => {
    if (!out || doc.value) return
    cook.value = out
    reading.value = out.arms.map((arm) => arm.reading)
    autosave.begin(out)
    void nextTick(history.beginHistory)
  },
  { immediate: true },
)
watch(
  doc,
  (now, before) => {
    if (!now) return
    const body = JSON.parse(JSON.stringify({ arms: now.arms })) as Schemas['CoatDocument']
    void ask((signal) => call(api.POST('/api/coat/read', { body, signal })))
    if (before) autosave.touch()
  },
  { deep: true },
)

/** The serving time as the browser's own field types it; a half-typed one changes nothing. */
const serve = computed({
  get: () => (doc.value ? asTyped(doc.value.serve_at) : ''),
  set: (text) => {
    const iso = fromTyped(text)
    if (iso && doc.value) doc.value.serve_at = iso
  },
})
const { data: blends } = useQuery({ queryKey: ['blends'], queryFn: () => call(api.GET('/api/blends')) })
const longest = computed(() =>
  Math.max(8, ...(reading.value ?? []).map((arm) => (arm ? arm.piece.solid.length_cm + arm.piece.solid.width_cm : 0))),
)
const conflict = computed(() =>
  autosave.theirs.value && doc.value ? differences(doc.value, typed(autosave.theirs.value)) : [],
)
/** The errors of one arm, by their field within it. */
function armErrors(at: number): Record<string, string> {
  const start = `arms.${at}.`
  return Object.fromEntries(
    Object.entries(errors.value)
      .filter(([field]) => field.startsWith(start))
      .map(([field, sentence]) => [field.slice(start.length), sentence]),
  )
}

/** Put another blend on an arm; what it becomes there, and in which order, the server knows. */
async function choose(at: number, blendId: string) {
  const arm = doc.value!.arms[at]
  const body = { blend_id: blendId, cut: arm.piece.cut, layers: JSON.parse(JSON.stringify(arm.layers)) }
  try {
    arm.layers = await call(api.POST('/api/coat/choose', { body }))
  } catch (failure) {
    say(sentenceOf(failure))
  }
}

async function sizeBatch(blendId: string) {
  try {
    await autosave.flush()
    const made = await call(
      api.POST('/api/cooks/{cook_id}/batch', { params: { path: path() }, body: { blend_id: blendId } }),
    )
    say(`The batch of that blend is ${made.batch} now.`)
    await queries.invalidateQueries({ queryKey: ['blends'] })
    await queries.invalidateQueries({ queryKey: ['blend', blendId] })
  } catch (failure) {
    say(sentenceOf(failure))
  }
}
</script>

<template>
  <main v-if="doc && cook">
    <header class="station-head">
      <div class="title">
        <TitleInput v-model="doc.name" label="Name of the cook" :error="errors.name" />
        <p class="muted">
          <label for="serve">Served</label>
          <input id="serve" v-model="serve" type="datetime-local" />
          <span v-if="errors.serve_at" class="says" role="alert">{{ errors.serve_at }}</span>
        </p>
      </div>
      <div class="tools">
        <SaveMark :state="autosave.state.value" :refusal="autosave.refusal.value" />
        <v-btn :disabled="!history.canUndo.value" @click="history.undo()">Undo</v-btn>
      </div>
    </header>
    <ConflictBar
      v-if="autosave.theirs.value"
      what="cook"
      :differences="conflict"
      @mine="autosave.keepMine()"
      @theirs="autosave.takeTheirs()"
    />
    <div class="arms">
      <ArmColumn
        v-for="(arm, at) in doc.arms"
        :key="arm.label"
        v-model="doc.arms[at]"
        :reading="reading?.[at] ?? null"
        :stored="cook.arms[at]"
        :blends="blends ?? []"
        :errors="armErrors(at)"
        :longest="longest"
        @batch="sizeBatch"
        @choose="choose(at, $event)"
      />
    </div>
  </main>
  <main v-else>
    <h1>Coat</h1>
    <p v-if="error" class="muted">{{ sentenceOf(error) }}</p>
    <p v-else-if="loaded === null" class="muted">
      No cook is in hand, so there is nothing to coat. <router-link to="/">Begin a cook</router-link>
    </p>
    <p v-else class="muted">Laying out the pieces …</p>
  </main>
</template>

<style scoped>
.title {
  flex: 1 1 340px;
  min-width: 0;
}
.title p {
  margin: 2px 0 0;
  display: flex;
  align-items: center;
  gap: 10px;
  flex-wrap: wrap;
}
.title p input {
  width: auto !important;
}
.says {
  color: var(--stop);
  font-size: 14px;
}
.arms {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 20px;
  align-items: start;
}
@media (max-width: 1000px) {
  .arms {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
