<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, nextTick, ref, watch } from 'vue'
import { api, call, sentenceOf, type Schemas } from '../api/client'
import { useAutosave } from '../ui/autosave'
import { grindWord, useCatalogue } from '../ui/catalogue'
import ConflictBar from '../ui/ConflictBar.vue'
import { differences } from '../ui/differences'
import GrainStrip from '../ui/GrainStrip.vue'
import { useReading } from '../ui/reading'
import SaveMark from '../ui/SaveMark.vue'
import TitleInput from '../ui/TitleInput.vue'
import { useUndo } from '../ui/undo'
import AddLine from './AddLine.vue'
import BatchRow from './BatchRow.vue'
import CautionList from '../ui/CautionList.vue'
import BlendReads from './BlendReads.vue'
import LineRow from './LineRow.vue'

const props = defineProps<{ id: string }>()
type Doc = Schemas['BlendDocument']
type Out = Schemas['BlendOut']

const queries = useQueryClient()
const { grinds } = useCatalogue()
const doc = ref<Doc | null>(null)
const kept = ref(0)
const loadError = ref('')
const path = { blend_id: props.id }
const { reading, errors, ask } = useReading<Schemas['BlendReadingOut']>()

const typed = (out: Out): Doc => ({
  name: out.name,
  kind: out.kind as Doc['kind'],
  batch: out.batch,
  lines: out.lines.map((line) => ({ grind: line.grind, parts: line.parts, basis: line.basis })),
})
const autosave = useAutosave<Doc, Out>({
  key: () => `blend:${props.id}`,
  doc,
  typed,
  save: (body, version) => call(api.PUT('/api/blends/{blend_id}', { params: { path }, body: { ...body, version } })),
  saved: (out) => {
    kept.value = out.kept
    queries.setQueryData(['blend', props.id], out)
    void queries.invalidateQueries({ queryKey: ['blends'] })
    void queries.invalidateQueries({ queryKey: ['home'] })
  },
})
const history = useUndo(doc, () => autosave.touch())

const { data: loaded, error } = useQuery({
  queryKey: ['blend', props.id],
  queryFn: () => call(api.GET('/api/blends/{blend_id}', { params: { path } })),
  gcTime: 0,
  staleTime: 0,
  refetchOnReconnect: false,
})
watch(error, (failure) => (loadError.value = failure ? sentenceOf(failure) : ''))
watch(
  loaded,
  (out) => {
    if (!out || doc.value) return
    autosave.begin(out)
    kept.value = out.kept
    reading.value = out.reading ?? null
    void nextTick(history.beginHistory)
  },
  { immediate: true },
)
watch(
  doc,
  (now, before) => {
    if (!now) return
    const body = JSON.parse(JSON.stringify(now)) as Doc
    void ask((signal) => call(api.POST('/api/blends/read', { body, signal })))
    if (before) autosave.touch()
  },
  { deep: true },
)

const bands = computed(() =>
  (reading.value?.lines ?? []).flatMap((line) => {
    const grind = grinds.value.get(line.grind)
    return grind ? [{ of: grind, name: grind.name, share: line.share.value / 100 }] : []
  }),
)
/** The reading of a line, as long as it is of this ingredient. */
function lineReading(at: number) {
  const found = reading.value?.lines[at]
  return found && found.grind === doc.value?.lines[at]?.grind ? found : null
}
const empty = computed(() => doc.value?.lines.length === 0)
const rows = ref<InstanceType<typeof LineRow>[]>([])

async function add(grind: string) {
  doc.value?.lines.push({ grind, parts: '1', basis: 'spoon' })
  await nextTick()
  rows.value.at(-1)?.focus()
}

const kinds: Doc['kind'][] = [
  'dry rub', 'paste', 'binder', 'marinade', 'injection', 'glaze', 'spritz', 'cooking liquid', 'finishing salt',
] // prettier-ignore
const conflict = computed(() =>
  autosave.theirs.value && doc.value ? differences(doc.value, typed(autosave.theirs.value)) : [],
)
</script>

<template>
  <main v-if="doc">
    <header class="station-head">
      <div class="named">
        <TitleInput v-model="doc.name" label="Name of the blend" :error="errors.name" />
        <span class="muted">{{ kept ? `${kept} kept, working draft` : 'working draft' }}</span>
      </div>
      <div class="tools">
        <SaveMark :state="autosave.state.value" :refusal="autosave.refusal.value" />
        <label class="sr-only" for="blend-kind">Kind of blend</label>
        <select id="blend-kind" v-model="doc.kind">
          <option v-for="kind in kinds" :key="kind">{{ kind }}</option>
        </select>
        <v-btn :disabled="!history.canUndo.value" @click="history.undo()">Undo</v-btn>
      </div>
    </header>

    <ConflictBar
      v-if="autosave.theirs.value"
      what="blend"
      :differences="conflict"
      @mine="autosave.keepMine()"
      @theirs="autosave.takeTheirs()"
    />

    <GrainStrip v-if="!empty && bands.length" :bands="bands" labelled />
    <div v-else class="bare muted">The blend will show here as a band of its own grains.</div>

    <CautionList v-if="reading && !empty" :cautions="reading.cautions" only="stops" class="stops-here" />
    <div class="bench">
      <section class="plate lines" aria-label="Lines">
        <p v-if="empty" class="says" role="status">There is nothing in this blend yet; add a first ingredient.</p>
        <div v-else class="head muted" aria-hidden="true">
          <span>Ingredient, grind</span><span>Parts</span><span>by</span><span class="n">Share</span>
          <span class="n">Weigh</span><span>Or spoon</span><span />
        </div>
        <LineRow
          v-for="(line, at) in doc.lines"
          :key="at"
          ref="rows"
          v-model:parts="line.parts"
          v-model:basis="line.basis"
          :name="grinds.get(line.grind)?.name ?? line.grind"
          :grind="grinds.has(line.grind) ? grindWord(grinds.get(line.grind)!) : ''"
          :colour="grinds.get(line.grind)?.colour ?? '#888888'"
          :reading="lineReading(at)"
          :error="errors[`lines.${at}.parts`] ?? errors[`lines.${at}.grind`] ?? errors[`lines.${at}.basis`]"
          @remove="doc.lines.splice(at, 1)"
        />
        <AddLine :taken="doc.lines.map((line) => line.grind)" @add="add" />
      </section>
      <BlendReads :reading="empty ? null : reading" :kind="doc.kind">
        <BatchRow v-model="doc.batch" :reading="empty ? null : reading" :error="errors.batch ?? errors.batch_g" />
      </BlendReads>
    </div>
  </main>
  <main v-else>
    <p class="muted">{{ loadError || 'Opening the blend …' }}</p>
    <p v-if="loadError"><router-link to="/blend">Back to all blends</router-link></p>
  </main>
</template>

<style scoped>
.named {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 0 10px;
  font-size: 14px;
  flex: 1 1 340px;
  min-width: 0;
}
.tools select {
  width: auto;
  border-color: var(--rim);
  border-radius: 22px;
  background-color: transparent;
}
.bare {
  height: 112px;
  border: 2px dashed var(--line-strong);
  border-radius: 14px;
  display: grid;
  place-items: center;
  text-align: center;
}
.stops-here {
  margin-top: 12px !important;
}
.bench {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 320px;
  gap: 18px;
  margin-top: 14px;
  align-items: start;
}
.lines {
  padding: 18px 22px;
}
.head {
  display: grid;
  grid-template-columns: var(--line-columns);
  gap: 12px;
  font-size: 13px;
  padding-bottom: 6px;
}
.lines {
  --line-columns: minmax(150px, 1fr) 66px 118px 72px 72px minmax(110px, 160px) 36px;
}
.n {
  text-align: right;
}
.lines > .says {
  font-size: 14px;
  margin: 0;
  color: var(--muted);
  padding-bottom: 10px;
}
@media (max-width: 1060px) {
  .stops-here {
    margin-top: 12px !important;
  }
  .bench {
    grid-template-columns: minmax(0, 1fr);
  }
}
@media (max-width: 720px) {
  .head {
    display: none;
  }
  .lines {
    padding: 14px 16px;
  }
}
</style>
