<script setup lang="ts">
import { computed, nextTick, ref } from 'vue'
import { api, call } from '../api/client'
import { useChange } from '../api/change'
import { grindWord, useCatalogue } from '../api/catalogue'
import AddLine from './AddLine.vue'
import LineMore from './LineMore.vue'
import LineRow from './LineRow.vue'
import RatioBar from './RatioBar.vue'
import { benchHere, type Doc, type LineDoc, lineKey, newLine } from './useBlend'
import { useRowDrag } from '../edit/useRowDrag'
import { sure } from '../kit/sure'

/** The lines of a blend, typed, nudged, locked, reordered; blends inside them. */
const bench = benchHere()
defineProps<{ id: string }>()
const { grinds } = useCatalogue()
const doc = computed(() => sure(bench.doc.value))
const { reading, errors, pending, seen, rework, typeParts, move } = bench
useRowDrag('.who', move)
const open = ref(-1)
/** The rows by what they hold, as rows change places. */
const rows = new Map<string, InstanceType<typeof LineRow>>()
/** A key a row: the same ingredient may stand in two lines, as after a blend was unfolded. */
const keys = computed(() => {
  const met = new Map<string, number>()
  return doc.value.lines.map((line) => {
    const times = (met.get(lineKey(line)) ?? 0) + 1
    met.set(lineKey(line), times)
    return times > 1 ? `${lineKey(line)} ${times}` : lineKey(line)
  })
})
function note(key: string, row: unknown) {
  if (row) rows.set(key, row as InstanceType<typeof LineRow>)
  else rows.delete(key)
}
const adder = ref<InstanceType<typeof AddLine>>()
const refused = ref('')

/** The blend that a line holds as the book has it, and the line's reading, as long as they are of this line. */
function insideOf(line: LineDoc, at: number) {
  const inside = reading.value?.inside[at] ?? null
  return line.blend && inside?.id === line.blend ? inside : null
}
function readingOf(line: LineDoc, at: number) {
  const found = reading.value?.lines[at]
  const held = reading.value?.inside[at]?.id ?? null
  return found && found.grind === line.grind && held === (line.blend ?? null) ? found : null
}
const nameOf = (line: LineDoc, at: number) =>
  line.blend
    ? ((line.held ? readingOf(line, at)?.name : insideOf(line, at)?.name) ?? 'A blend')
    : (grinds.value.get(line.grind)?.name ?? line.grind)
const names = computed(() => doc.value.lines.map(nameOf))
function coloursOf(line: LineDoc, at: number): string[] {
  if (!line.blend) return [grinds.value.get(line.grind)?.colour ?? '#888888']
  const bands = [...(readingOf(line, at)?.bands ?? [])].sort((a, b) => b.share - a.share).slice(0, 4)
  return bands.map((band) => grinds.value.get(band.grind)?.colour ?? '#888888')
}
const errorOf = (at: number) =>
  ['parts', 'exact', 'grind', 'blend', 'basis', 'lock'].map((key) => errors.value[`lines.${at}.${key}`]).find(Boolean)
function noticeOf(line: LineDoc, at: number): string {
  const inside = insideOf(line, at)
  if (!inside) return ''
  if (inside.deleted) return `“${inside.name}” was deleted; its lines still count here.`
  return seen[inside.id] !== inside.version ? `“${inside.name}” was changed meanwhile; the numbers here follow it.` : ''
}

async function add(grind: string, inside: string | null, amount: string) {
  refused.value = ''
  if (!inside && !amount && bench.alone.value) doc.value.lines.push(newLine(grind))
  else if (!(await rework({ do: 'add', grind, inside, amount }))) {
    const at = doc.value.lines.length
    const about = [`lines.${at}.blend`, `lines.${at}.parts`, 'amount'].map((key) => errors.value[key]).find(Boolean)
    refused.value = about ?? Object.values(errors.value)[0] ?? 'That cannot be added.'
    return
  }
  open.value = -1
  await nextTick()
  rows.get(keys.value.at(-1) ?? '')?.focus()
}
async function remove(at: number) {
  open.value = -1
  if (bench.alone.value) doc.value.lines.splice(at, 1)
  else await rework({ do: 'remove', line: at })
}
/** By itself a basis only says how a number is meant; asked for here, it keeps the blend and changes the number. */
const basis = (at: number, to: 'spoon' | 'scale') => rework({ do: 'basis', line: at, to_basis: to })
const write = (as: Doc['written'], base: number) => rework({ do: 'write', to_written: as, line: base })
async function shift(at: number, by: number) {
  const key = sure(keys.value[at])
  move(at, at + by)
  await nextTick()
  rows.get(key)?.stay()
}
const restore = useChange('blends', async (id: string) => {
  await call(api.POST('/api/blends/{blend_id}/restore', { params: { path: { blend_id: id } } }))
  delete seen[id]
  await bench.read()
})
</script>

<template>
  <section class="plate lines" aria-label="Lines">
    <RatioBar
      v-if="doc.lines.length"
      :written="doc.written"
      :total="doc.total"
      :base="doc.base"
      :names="names"
      @write="write"
      @total="doc.total = $event"
    />
    <p v-if="!doc.lines.length" class="says" role="status">
      There is nothing in this blend yet; add a first ingredient.
    </p>
    <div v-else class="head muted" aria-hidden="true">
      <span>Ingredient, grind</span><span class="n">{{ doc.written === 'percent' ? 'Percent' : 'Parts' }}</span
      ><span>{{ doc.written === 'percent' ? '' : 'by' }}</span
      ><span class="n">Share</span><span class="n">Weigh</span> <span>Or spoon</span><span />
    </div>
    <div ref="list" class="rows">
      <LineRow
        v-for="(line, at) in doc.lines"
        :key="keys[at]"
        :ref="(row) => note(sure(keys[at]), row)"
        :line="line"
        :at="at"
        :name="nameOf(line, at)"
        :grind="line.blend ? 'a blend' : grinds.has(line.grind) ? grindWord(grinds.get(line.grind)!) : ''"
        :colours="coloursOf(line, at)"
        :reading="readingOf(line, at)"
        :written="doc.written"
        :is-base="doc.written === 'relative' && at === doc.base"
        :pending="pending[at]"
        :error="errorOf(at)"
        :notice="noticeOf(line, at)"
        :open="open === at"
        @parts="typeParts(at, $event)"
        @basis="basis(at, $event)"
        @lock="line.lock = $event"
        @nudge="rework({ do: 'nudge', line: at, up: $event })"
        @move="shift(at, $event)"
        @enter="adder?.focus()"
        @more="open = open === at ? -1 : at"
        @remove="remove(at)"
      >
        <template #notice>
          <button v-if="insideOf(line, at)?.deleted" type="button" class="way" @click="restore(line.blend!)">
            Bring it back
          </button>
          <button v-else type="button" class="way" @click="seen[line.blend!] = insideOf(line, at)!.version">
            All right
          </button>
          <button type="button" class="way" @click="rework({ do: 'unfold', line: at })">Unfold its lines here</button>
        </template>
        <LineMore v-if="open === at" :at="at" :name="nameOf(line, at)" :errors="errors" @close="open = -1" />
      </LineRow>
    </div>
    <AddLine
      ref="adder"
      :taken="doc.lines.map(lineKey)"
      :own="id"
      :error="refused || errors.lines"
      @grind="(key, amount) => add(key, null, amount)"
      @inside="(id, amount) => add('', id, amount)"
    />
  </section>
</template>

<style scoped>
.lines {
  padding: var(--s-16) var(--s-20);
  --line-columns: minmax(120px, 1fr) 62px 106px 60px 66px minmax(84px, 136px) 92px;
}
.head {
  display: grid;
  grid-template-columns: var(--line-columns);
  gap: var(--s-10);
  font-size: var(--t-xs);
  padding: var(--s-10) 0 var(--s-6);
}
.n {
  text-align: right;
}
.says {
  font-size: var(--t-s);
  margin: 0;
  color: var(--muted);
  padding-bottom: var(--s-10);
}
.way {
  color: var(--link);
  text-decoration: underline;
  text-underline-offset: 3px;
  padding: var(--s-2) var(--s-6);
}
@media (max-width: 720px) {
  .head {
    display: none;
  }
  .lines {
    padding: var(--s-14) var(--s-16);
  }
}
</style>
