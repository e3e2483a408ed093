<script setup lang="ts">
import { computed, provide, ref, shallowRef, watch } from 'vue'
import { useRouter } from 'vue-router'
import { api, call } from '../api/client'
import { useChange } from '../api/change'
import CautionList from '../kit/CautionList.vue'
import { useCatalogue } from '../api/catalogue'
import Choice from '../kit/Choice.vue'
import ConflictBar from '../edit/ConflictBar.vue'
import { differences } from '../edit/differences'
import { say } from '../kit/notice'
import AdaptPanel from './AdaptPanel.vue'
import { bandsOf, bandsOfLines, bandsOfShares } from './bands'
import BatchRow from './BatchRow.vue'
import BenchHead from './BenchHead.vue'
import BenchLines from './BenchLines.vue'
import BlendFindings from './BlendFindings.vue'
import LeavesOut from './LeavesOut.vue'
import BlendReads from './BlendReads.vue'
import BlendStrip from './BlendStrip.vue'
import BranchTree from './BranchTree.vue'
import LabelPlate from './LabelPlate.vue'
import MeasurePanel from './MeasurePanel.vue'
import MethodPlate from './MethodPlate.vue'
import NudgeRow from './NudgeRow.vue'
import PricesPanel from './PricesPanel.vue'
import ProposalPlate from './ProposalPlate.vue'
import RevisionPlate from './RevisionPlate.vue'
import SharePanel from './SharePanel.vue'
import StartWith from './StartWith.vue'
import type { Node } from './tree'
import { BENCH, lineKey, typed, useBlend, type LineDoc } from './useBlend'
import { useReworked } from './useReworked'
import { sure } from '../kit/sure'

const props = defineProps<{ id: string }>()
const router = useRouter()
const bench = useBlend(props.id)
provide(BENCH, bench)
const { doc, stored, loadError, reading, errors, autosave } = bench
const { proposed, refusals, failed, leave, aiming, skip, adapt, askAdapt, take, branch } = useReworked(bench, props.id)
const { grinds } = useCatalogue()

const empty = computed(() => !doc.value?.lines.length)
const shown = computed(() => (empty.value ? null : reading.value))
const stretches = computed(() =>
  bandsOfLines(shown.value, grinds.value).map((bands, at) => {
    const line = sure(shown.value?.lines[at])
    const inside = doc.value?.lines[at]?.held ? line.name : sure(shown.value).inside[at]?.name
    return {
      name: inside ?? bands[0]?.name ?? '',
      short: inside ?? grinds.value.get(line.grind)?.name ?? '',
      share: line.share.value / 100,
      locked: !!doc.value?.label || !!doc.value?.lines[at]?.lock,
      bands,
    }
  }),
)
const now = computed(() => bandsOf(shown.value, grinds.value))
const ghost = computed(() => bandsOfShares(stored.value?.before?.bands ?? [], grinds.value))
const ghostOf = computed(() => {
  const before = stored.value?.before
  return before
    ? `${before.blend_name === stored.value?.name ? 'Revision' : `${before.blend_name},`} ${before.number}`
    : ''
})
const conflict = computed(() =>
  autosave.theirs.value && doc.value ? differences(doc.value, typed(autosave.theirs.value)) : [],
)

// the right-hand side: how it reads, what to adapt it to, how it is shared out
const side = ref<'reads' | 'adapt' | 'share' | 'measure'>('reads')
const sides = computed(() =>
  [
    { value: 'reads' as const, text: 'Reads' },
    { value: 'adapt' as const, text: 'Adapt' },
    { value: 'share' as const, text: 'Share' },
    { value: 'measure' as const, text: 'Measure' },
  ].filter((one) => !doc.value?.label || ['reads', 'share'].includes(one.value)),
)
watch(side, () => {
  aiming.value = false
  leave()
})
const start = (lines: LineDoc[]) => (sure(doc.value).lines = lines.map((line) => ({ ...line })))

const chosen = shallowRef<Node | null>(null)
function choose(node: Node) {
  if (node.number === null) {
    chosen.value = null
    if (node.blend_id !== props.id) void router.push(`/blend/${node.blend_id}`)
  } else chosen.value = chosen.value?.id === node.id ? null : node
}
const goBack = useChange('blends', async () => {
  await autosave.flush()
  const { id: revision, number } = sure(chosen.value)
  const body = { version: sure(stored.value).version, revision }
  bench.adopt(
    await call(api.POST('/api/blends/{blend_id}/go-back', { params: { path: { blend_id: props.id } }, body })),
  )
  say(`The draft goes on from revision ${number}; what it held before is kept.`)
  chosen.value = null
})
const lineNames = computed(() =>
  sure(doc.value).lines.map((line, at) => ({
    key: lineKey(line),
    name: stretches.value[at]?.name ?? grinds.value.get(line.grind)?.name ?? line.grind,
  })),
)
const own = computed(() =>
  sure(doc.value)
    .lines.filter((line) => line.grind)
    .map((line) => line.grind),
)
const named = computed(() => own.value.map((grind) => ({ grind, name: grinds.value.get(grind)?.name ?? grind })))
</script>

<template>
  <main v-if="doc">
    <BenchHead :id="id" />
    <ConflictBar
      v-if="autosave.theirs.value"
      what="blend"
      :differences="conflict"
      @mine="autosave.keepMine()"
      @theirs="autosave.takeTheirs()"
    />
    <BlendStrip
      v-if="!empty && now.length"
      :stretches="stretches"
      :ghost="ghost"
      :ghost-of="ghostOf"
      @border="(at, share, dragging) => bench.rework({ do: 'border', line: at, share }, dragging)"
      @grab="bench.history.hold()"
      @drop="bench.settled().then(bench.history.release)"
    />
    <div v-else class="bare muted">The blend will show here as a band of its own grains.</div>
    <CautionList v-if="shown" :cautions="shown.cautions" only="stops" class="stops-here" />

    <ProposalPlate
      v-if="proposed"
      v-model:skip="skip"
      :proposed="proposed"
      :now="now"
      @update:skip="askAdapt"
      @take="take"
      @branch="branch"
      @leave="leave"
    />
    <p v-if="failed" class="failed" role="alert">{{ failed }}</p>
    <div class="bench">
      <div class="left">
        <NudgeRow v-if="!empty && !doc.label" class="nudge" />
        <LabelPlate v-if="doc.label" v-model="doc.label" />
        <BenchLines v-else :id="id" />
        <MethodPlate v-if="!empty && !doc.label" v-model="doc.method" :names="lineNames" />
        <StartWith v-if="empty" :kind="doc.kind" @start="start" />
        <BlendFindings v-if="shown" :reading="shown" :before="stored?.before ?? null" class="last" />
        <LeavesOut v-if="stored && !empty" :id="id" :version="stored.version" />
        <BranchTree v-if="!empty" :id="id" class="last" :chosen="chosen?.id ?? ''" @choose="choose" />
        <RevisionPlate
          v-if="chosen"
          :id="id"
          class="last"
          :node="chosen"
          :now="now"
          @back="goBack"
          @leave="chosen = null"
        />
      </div>
      <div class="side">
        <Choice v-if="!empty" v-model="side" label="On this side" hidden-label :options="sides" />
        <BlendReads
          v-if="side === 'reads' || empty"
          v-model:targets="doc.targets"
          v-model:aiming="aiming"
          :reading="shown"
          :kind="doc.kind"
          :fixed="!!doc.label"
          :before="stored?.before ?? null"
          :errors="{ ...errors, ...refusals }"
        >
          <BatchRow v-model="doc.batch" :reading="shown" :error="errors.batch ?? errors.batch_g" />
          <template #cost><PricesPanel :keys="own" @changed="bench.read()" /></template>
        </BlendReads>
        <AdaptPanel v-else-if="side === 'adapt'" :lines="named" :allergens="shown?.allergens ?? []" @adapt="adapt" />
        <SharePanel v-else-if="side === 'share'" v-model="doc.uses" />
        <MeasurePanel v-else :id="id" />
      </div>
    </div>
  </main>
  <main v-else>
    <p class="muted">{{ loadError || 'Opening the blend …' }}</p>
    <p v-if="loadError"><router-link to="/blend">Back to all blends</router-link></p>
  </main>
</template>

<style scoped>
.bare {
  height: 112px;
  border: 2px dashed var(--line-strong);
  border-radius: 14px;
  display: grid;
  place-items: center;
  text-align: center;
}
.stops-here {
  margin-top: var(--s-12);
}
.failed {
  color: var(--stop);
  margin: var(--s-10) 0 0;
}
.bench {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 330px;
  gap: var(--s-20);
  margin-top: var(--s-12);
  align-items: start;
}
.nudge {
  margin-bottom: var(--s-10);
}
.side {
  display: grid;
  gap: var(--s-14);
}
@media (max-width: 1060px) {
  .bench {
    grid-template-columns: minmax(0, 1fr);
    gap: var(--s-12);
  }
  /* in one column the reading comes right after the lines, and how it got here last */
  .left {
    display: contents;
  }
  .nudge {
    margin: 0;
  }
  .side {
    order: 1;
  }
  .last {
    order: 2;
  }
}
</style>
