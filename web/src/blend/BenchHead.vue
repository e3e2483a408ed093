<script setup lang="ts">
import { mdiRedo, mdiUndo } from '@mdi/js'
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { api, call } from '../api/client'
import { useChange } from '../api/change'
import { refresh } from '../api/kept'
import { say } from '../kit/notice'
import SaveMark from '../edit/SaveMark.vue'
import TitleInput from '../kit/TitleInput.vue'
import Select from '../kit/Select.vue'
import KeepDialog from './KeepDialog.vue'
import { kinds } from './kinds'
import { benchHere, type Doc } from './useBlend'
import { sure } from '../kit/sure'

/** A blend's name and kind, the fire it is for, and what can be done with it as a whole. */
const bench = benchHere()
const props = defineProps<{ id: string }>()
const doc = computed(() => sure(bench.doc.value))
const stored = bench.stored
const { autosave, history, errors } = bench
const router = useRouter()
const queries = useQueryClient()

const fires = (['', 'direct flame', 'hot iron', 'indirect', 'oven', 'broiler'] as Doc['fire'][]).map((fire) => ({
  value: fire,
  title: fire ? `for ${fire}` : 'for any fire',
}))
const keeping = ref(false)
const branching = ref(false)
const path = { blend_id: props.id }

/** Everything typed is in the book before something is done with the whole. */
async function settled(): Promise<number | null> {
  await autosave.flush()
  return autosave.state.value === 'saved' ? (stored.value?.version ?? null) : null
}
/** Something done with the whole blend, once all that was typed is in the book. */
const doing = <Given extends unknown[]>(work: (version: number, ...given: Given) => Promise<unknown>) =>
  useChange('blends', async (...given: Given) => {
    const version = await settled()
    if (version === null) return say('Mend what is not saved yet first; nothing is lost.')
    await work(version, ...given)
    await refresh(queries, ['blends'], ['tree'])
  })
const keep = doing(async (version, note: string) => {
  const before = stored.value?.kept
  const out = await call(api.POST('/api/blends/{blend_id}/keep', { params: { path }, body: { version, note } }))
  stored.value = out
  autosave.adopt(out.version)
  const number = out.before?.number
  say(out.kept === before ? `Nothing changed since revision ${number}.` : `Kept as revision ${number}.`)
})
const branch = doing(async (version, name: string) => {
  const made = await call(api.POST('/api/blends/{blend_id}/branch', { params: { path }, body: { version, name } }))
  await router.push(`/blend/${made.id}`)
})
const duplicate = doing(async () => {
  const body = { ...bench.body(), name: `${doc.value.name}, copy`.slice(0, 80) }
  const made = await call(api.POST('/api/blends', { body }))
  await router.push(`/blend/${made.id}`)
})
/** The file is written from what the book holds, so that comes first. */
const takeOut = doing(async (_, kind: 'jsonld' | 'csv' | 'markdown') =>
  window.location.assign(`/api/blends/${props.id}/take-out/${kind}`),
)
const archive = doing(async (version) => {
  const archived = !stored.value?.archived
  const body = { version, archived }
  const out = await call(api.POST('/api/blends/{blend_id}/archive', { params: { path }, body }))
  autosave.adopt(out.version)
  stored.value = { ...sure(stored.value), archived, version: out.version }
  say(archived ? 'Put away. It stays where it is used.' : 'Back among your blends.')
})
const since = computed(() => {
  const before = stored.value?.before
  if (!before) return 'working draft'
  return `working draft after ${before.blend_name === stored.value?.name ? 'revision' : `${before.blend_name},`} ${before.number}${before.note ? `: ${before.note}` : ''}`
})
</script>

<template>
  <header class="station-head">
    <div class="named">
      <h1 class="sr-only">{{ doc.name }}</h1>
      <TitleInput v-model="doc.name" label="Name of the blend" :error="errors.name" />
      <p class="muted about">
        <Select
          v-model="doc.kind"
          label="Kind of blend"
          hidden-label
          :options="kinds.map((kind) => ({ value: kind, title: kind }))"
        />
        <Select v-model="doc.fire" label="Fire it is meant for" hidden-label :options="fires" />
        <span class="since">{{ since }}</span>
      </p>
    </div>
    <div class="tools">
      <SaveMark :state="autosave.state.value" :refusal="autosave.refusal.value" />
      <span class="steps">
        <button type="button" :disabled="!history.canUndo.value" aria-label="Undo" @click="history.undo()">
          <v-icon :icon="mdiUndo" size="20" />
        </button>
        <button type="button" :disabled="!history.canRedo.value" aria-label="Redo" @click="history.redo()">
          <v-icon :icon="mdiRedo" size="20" />
        </button>
      </span>
      <v-menu>
        <template #activator="{ props: opens }"><v-btn v-bind="opens">More</v-btn></template>
        <v-list>
          <v-list-item title="Duplicate" @click="duplicate" />
          <v-list-item title="Take out as a recipe file" @click="takeOut('jsonld')" />
          <v-list-item title="Take out as a table (CSV)" @click="takeOut('csv')" />
          <v-list-item title="Take out as text (Markdown)" @click="takeOut('markdown')" />
          <v-list-item :title="stored?.archived ? 'Take out of the archive' : 'Archive'" @click="archive" />
        </v-list>
      </v-menu>
      <v-btn @click="branching = true">Branch</v-btn>
      <v-btn class="solid" @click="keeping = true">Keep</v-btn>
    </div>
    <KeepDialog
      v-model="keeping"
      title="Keep it as it is now"
      says="A revision never changes. The draft goes on from it."
      label="Note, what you changed and why"
      value=""
      act="Keep"
      @done="keep"
    />
    <KeepDialog
      v-model="branching"
      title="Begin a branch"
      says="This blend is kept as it is; the branch goes on by itself, under a name of its own."
      label="Name of the branch"
      :value="`${doc.name}, branch`"
      act="Branch"
      needed
      @done="branch"
    />
  </header>
</template>

<style scoped>
.named {
  flex: 1 1 420px;
  min-width: 0;
}
.about {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s-4) var(--s-8);
  font-size: var(--t-s);
}
.since {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  max-width: 420px;
}
.steps {
  display: flex;
}
.steps button {
  width: 38px;
  height: 40px;
  border-radius: 12px;
}
.steps button:hover {
  background: var(--tint);
}
.steps button:disabled {
  opacity: 0.35;
  cursor: default;
}
@media (max-width: 720px) {
  .tools {
    flex: 1 1 100%;
    flex-wrap: nowrap;
    gap: var(--s-4);
  }
  .tools .v-btn {
    padding: 0 var(--s-10);
  }
  .since {
    display: none;
  }
  .steps button {
    width: 44px;
    height: 44px;
  }
}
</style>
