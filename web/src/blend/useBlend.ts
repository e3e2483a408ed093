import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { useEventListener } from '@vueuse/core'
import { computed, inject, type InjectionKey, nextTick, onScopeDispose, reactive, ref, shallowRef, watch } from 'vue'
import { api, byField, call, Refusal, sentenceOf, type Schemas } from '../api/client'
import { useChange } from '../api/change'
import { keep, refresh } from '../api/kept'
import { KEY } from '../api/keys'
import { useAutosave } from '../edit/autosave'
import { PATIENCE_MS, useQuestion } from '../api/question'
import { say } from '../kit/notice'
import { usePreferences } from '../app/preferences'
import { useUndo } from '../edit/undo'
import { sure } from '../kit/sure'

export type Doc = Schemas['BlendDocument']
export type LineDoc = Schemas['LineDocument']
export type Reading = Schemas['BlendReadingOut']
type Out = Schemas['BlendOut']
type Typed = Schemas['TypedBlendOut']
/** How long to wait for the rest of an amount in words. */
const WORDED_MS = 600
type Ask = Omit<Partial<Schemas['Rework']>, 'do' | 'lines'> & { do: Schemas['Rework']['do'] }

const plain = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T

export const newLine = (grind: string): LineDoc => ({
  grind,
  parts: '1',
  exact: '',
  basis: 'spoon',
  lock: '',
  least: '',
  most: '',
  error: '',
  said: '',
  swap: '',
  held: false,
})

/** What a step of the method calls a line: its grind, its blend, or what that one's sieve held back. */
export const lineKey = (line: LineDoc): string =>
  line.blend ? `${line.held ? 'sieve:' : ''}${line.blend}` : (line.grind ?? '')

/** What is typed of a blend, out of the server's answer. */
export const typed = (out: Typed): Doc =>
  plain({
    name: out.name,
    kind: out.kind as Doc['kind'],
    fire: out.fire as Doc['fire'],
    batch: out.batch,
    lines: out.lines,
    written: out.written as Doc['written'],
    base: out.base,
    total: out.total as Doc['total'],
    targets: out.targets,
    uses: out.uses,
    method: out.method,
    label: out.label,
  })

/** What a reading depends on. */
const readFrom = (doc: Doc) =>
  JSON.stringify([doc.name, doc.kind, doc.fire, doc.batch, doc.lines, doc.method, doc.label])

/** A blend on the bench: as typed, as read, as saved; and the changes of its ratio, which the server computes. */
export function useBlend(id: string) {
  const queries = useQueryClient()
  const doc = ref<Doc | null>(null)
  const stored = shallowRef<Out | null>(null)
  const loadError = ref('')
  const path = { blend_id: id }
  const { answer: reading, errors, ask } = useQuestion<Reading>({ patience: PATIENCE_MS })
  /** Numbers that were typed but could not be taken, by line: they stay as typed, with their sentence. */
  const pending = reactive<Record<number, string>>({})
  /** The versions of the blends inside, as they were when they were first read here. */
  const seen = reactive<Record<string, number>>({})

  const autosave = useAutosave<Doc, Typed>({
    key: () => `blend:${id}`,
    doc,
    typed,
    save: (body, version, key) => {
      const sent = { params: { path }, body: { ...body, version }, headers: { [KEY]: key } }
      return call(api.PUT('/api/blends/{blend_id}', sent))
    },
    saved: (out) => {
      // what it was kept as, and what it came to then, stays
      stored.value = { ...sure(stored.value), ...out }
      void keep(queries, ['blend', id], stored.value)
      void refresh(queries, ['blends'], ['home'], ['tree'])
    },
  })
  const history = useUndo(doc, () => autosave.touch())

  const { data: loaded, error } = useQuery({
    queryKey: ['blend', id],
    queryFn: () => call(api.GET('/api/blends/{blend_id}', { params: { path } })),
    gcTime: 0,
    staleTime: 0,
    refetchOnReconnect: false,
  })
  watch(error, (failure) => (loadError.value = failure ? sentenceOf(failure) : ''))

  let current = ''
  /** Take over what the book holds now; a blend that is opened begins a history, one that went back goes on with it. */
  function adopt(out: Out, opened = false) {
    stored.value = out
    autosave.begin(out)
    reading.value = out.reading ?? null
    if (opened) void nextTick(history.beginHistory)
  }
  watch(loaded, (out) => out && !doc.value && adopt(out, true), { immediate: true })
  watch(reading, (found) => {
    for (const inside of found?.inside ?? []) {
      if (inside && !(inside.id in seen)) seen[inside.id] = inside.version
    }
  })

  const body = () => ({ ...plain(sure(doc.value)), id })
  const read = () => ask((signal) => call(api.POST('/api/blends/read', { body: body(), signal })))
  watch(usePreferences().spoons, () => doc.value?.lines.length && read())
  watch(
    doc,
    (now, before) => {
      if (!now) return
      const as = readFrom(now)
      if (as !== current) {
        current = as
        if (now.lines.length) void read()
        else reading.value = null
      }
      if (before) autosave.touch()
    },
    { deep: true },
  )
  // blends inside may have changed in another window
  useEventListener(window, 'focus', () => {
    if (doc.value?.lines.some((line) => line.blend)) void read()
  })

  /** Take lines over that the server computed, with what they come to. */
  function take(
    answer: Pick<Schemas['ReworkOut'], 'lines' | 'written' | 'base' | 'total'> &
      Partial<Pick<Schemas['ReworkOut'], 'method' | 'batch'>>,
    found: Reading | null,
  ) {
    const now = doc.value
    if (!now) return
    Object.assign(now, { lines: answer.lines, written: answer.written, base: answer.base, total: answer.total })
    if (answer.method) now.method = answer.method
    if (answer.batch) now.batch = answer.batch
    current = readFrom(now)
    errors.value = {}
    for (const key of Object.keys(pending)) delete pending[Number(key)]
    reading.value = found
  }

  let last: Promise<unknown> = Promise.resolve()
  let latest = 0
  let worded: ReturnType<typeof setTimeout> | undefined
  let complain: ReturnType<typeof setTimeout> | undefined
  onScopeDispose(() => [complain, worded].forEach(clearTimeout))
  const reworking = (only: boolean) =>
    useChange(
      `blend ${id}`,
      async (mine: number, change: Ask) => {
        if (!doc.value || (only && mine !== latest)) return false
        const sent = { ...body(), ...change } as Schemas['Rework']
        const answer = await call(api.POST('/api/blends/rework', { body: sent }))
        take(answer, answer.reading ?? null)
        if (!only) history.mark()
        return true
      },
      {
        refused: (failure) => {
          if (!(failure instanceof Refusal)) return say(sentenceOf(failure))
          const found = byField(failure)
          // a number that is half typed is no mistake yet
          if (only) complain = setTimeout(() => (errors.value = found), PATIENCE_MS)
          else errors.value = found
        },
      },
    )
  const [each, onlyLast] = [reworking(false), reworking(true)]
  /**
   * Change the ratio; the server says what follows. One change at a time, in the order they were made; of many that
   * set the same thing, as while a border is dragged, only the last is made.
   */
  async function rework(change: Ask, only = false): Promise<boolean> {
    clearTimeout(complain)
    if (!only) history.mark()
    const made = (only ? onlyLast : each)(++latest, change)
    last = made
    return (await made) ?? false
  }

  /** Resolves once the server has answered all that was changed. */
  const settled = () => last

  /** Whether a number can be typed by itself, as nothing else has to follow it. */
  const alone = computed(
    () => doc.value?.written === 'parts' && doc.value.total === 'free' && doc.value.lines.every((line) => !line.lock),
  )

  function typeParts(at: number, text: string) {
    const line = doc.value?.lines[at]
    if (!line) return
    clearTimeout(worded)
    const inWords = /^\s*\p{L}/u.test(text)
    if (alone.value && !inWords) {
      delete pending[at]
      Object.assign(line, { parts: text, exact: '', error: '', said: '' })
      return
    }
    pending[at] = text
    const set = () => void rework({ do: 'set', line: at, parts: text }, true)
    // "small handful" is read once it has been written
    if (inWords) worded = setTimeout(set, WORDED_MS)
    else set()
  }

  function move(at: number, to: number) {
    const now = doc.value
    if (!now || to < 0 || to >= now.lines.length) return
    history.mark()
    const base = now.lines[now.base]
    now.lines.splice(to, 0, ...now.lines.splice(at, 1))
    now.base = base ? now.lines.indexOf(base) : 0
    history.mark()
  }

  return {
    doc, stored, loadError, reading, errors, pending, seen, autosave, history, body, read, rework, take, adopt,
    settled, typeParts, move, alone,
  } // prettier-ignore
}

export type BlendOnBench = ReturnType<typeof useBlend>

/** The blend on the bench, for all that is drawn within the station. */
export const BENCH: InjectionKey<BlendOnBench> = Symbol('bench')
export function benchHere(): BlendOnBench {
  const bench = inject(BENCH)
  if (!bench) throw new Error('No blend is provided here.')
  return bench
}
