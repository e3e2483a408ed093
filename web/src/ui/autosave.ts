import { useDebounceFn, useEventListener } from '@vueuse/core'
import { computed, onScopeDispose, ref, type Ref } from 'vue'
import { Refusal, Unreachable } from '../api/client'

export type SaveState = 'saved' | 'waiting' | 'offline' | 'conflict' | 'refused'

interface Kept<Doc> {
  doc: Doc
  version: number
}

interface Options<Doc extends object, Out extends { version: number }> {
  /** Names the document in this browser's own store, where typing survives a lost server or a reload. */
  key: () => string
  doc: Ref<Doc | null>
  save: (doc: Doc, version: number) => Promise<Out>
  /** The document as typed, out of the server's answer. */
  typed: (out: Out) => Doc
  saved: (out: Out) => void
}

const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b)
const RETRY_MS = 2500

/** Saves a document as it is typed; notices other windows' edits and a lost server, and loses nothing typed. */
export function useAutosave<Doc extends object, Out extends { version: number }>(options: Options<Doc, Out>) {
  const state = ref<SaveState>('saved')
  const refusal = ref('')
  const theirs = ref<Out | null>(null) as Ref<Out | null>
  let version = 0
  let inBook = ''
  let running: Promise<void> | null = null
  let again = false
  let retry: ReturnType<typeof setTimeout> | undefined

  const store = () => `ravska:unsaved:${options.key()}`

  function remember() {
    if (options.doc.value) localStorage.setItem(store(), JSON.stringify({ doc: options.doc.value, version }))
  }

  function recall(): Kept<Doc> | null {
    try {
      return JSON.parse(localStorage.getItem(store()) ?? 'null')
    } catch {
      return null
    }
  }

  /** Begin with what the server has, or with what was typed here and never reached it. */
  function begin(out: Out) {
    const stored = options.typed(out)
    inBook = JSON.stringify(stored)
    version = out.version
    theirs.value = null
    state.value = 'saved'
    const kept = recall()
    if (!kept || same(kept.doc, stored)) {
      localStorage.removeItem(store())
      options.doc.value = stored
      return
    }
    options.doc.value = kept.doc
    if (kept.version === out.version) {
      touch()
    } else {
      theirs.value = out
      state.value = 'conflict'
    }
  }

  function settle() {
    localStorage.removeItem(store())
    state.value = 'saved'
  }

  async function send() {
    if (!options.doc.value || state.value === 'conflict') return
    if (JSON.stringify(options.doc.value) === inBook) {
      settle()
      return
    }
    const sent = JSON.parse(JSON.stringify(options.doc.value)) as Doc
    try {
      const out = await options.save(sent, version)
      version = out.version
      refusal.value = ''
      inBook = JSON.stringify(sent)
      if (same(sent, options.doc.value)) settle()
      options.saved(out)
    } catch (failure) {
      if (failure instanceof Refusal && failure.problem.status === 409 && failure.problem.theirs) {
        const other = failure.problem.theirs as unknown as Out
        if (same(options.typed(other), options.doc.value)) {
          version = other.version
          inBook = JSON.stringify(options.doc.value)
          settle()
        } else {
          theirs.value = other
          state.value = 'conflict'
        }
      } else if (failure instanceof Unreachable || (failure instanceof Refusal && failure.problem.status >= 500)) {
        state.value = 'offline'
        clearTimeout(retry)
        retry = setTimeout(flush, RETRY_MS)
      } else {
        state.value = 'refused'
        refusal.value = failure instanceof Refusal ? failure.problem.detail : String(failure)
      }
    }
  }

  /** Send what is typed now; one request at a time, so that versions follow each other. */
  async function flush(): Promise<void> {
    if (running) {
      again = true
      return running
    }
    running = send()
    await running
    running = null
    if (again) {
      again = false
      await flush()
    }
  }

  const soon = useDebounceFn(flush, 300)

  /** Say that the document was changed. */
  function touch() {
    remember()
    if (state.value === 'conflict') return
    if (!running && JSON.stringify(options.doc.value) === inBook) {
      settle()
      return
    }
    state.value = state.value === 'offline' ? 'offline' : 'waiting'
    void soon()
  }

  function keepMine() {
    if (!theirs.value) return
    version = theirs.value.version
    theirs.value = null
    state.value = 'waiting'
    remember()
    void flush()
  }

  function takeTheirs() {
    if (!theirs.value) return
    const other = theirs.value
    localStorage.removeItem(store())
    version = other.version
    options.doc.value = options.typed(other)
    inBook = JSON.stringify(options.doc.value)
    options.saved(other)
    theirs.value = null
    state.value = 'saved'
  }

  /** Take over a version this window itself caused by another route, such as sizing a batch. */
  function adopt(newVersion: number) {
    version = newVersion
  }

  useEventListener(window, 'beforeunload', () => {
    if (state.value !== 'saved') remember()
  })
  onScopeDispose(() => {
    clearTimeout(retry)
    if (state.value === 'waiting') void flush()
  })

  return { state: computed(() => state.value), refusal, theirs, begin, touch, flush, keepMine, takeTheirs, adopt }
}
