import { useDebounceFn, useEventListener } from '@vueuse/core'
import { computed, onScopeDispose, ref, type Ref } from 'vue'
import { Refusal, Unreachable } from '../api/client'
import { newKey } from '../api/keys'
import { whenBack } from '../api/server'
import * as unsent from './unsent'

export type SaveState = 'saved' | 'waiting' | 'offline' | 'conflict' | 'refused'

/** What was sent, under its key: sent again without an answer, it is the same save. */
interface Sent<Doc> {
  doc: Doc
  version: number
  key: string
}

/** What of a document has not reached the book: as it is typed now, and what is on its way. */
interface Kept<Doc> {
  doc: Doc
  version: number
  sent: Sent<Doc> | null
}

interface Options<Doc extends object, Out extends { version: number }> {
  /** Names the document in this browser's own store, where typing survives a lost server or a reload. */
  key: () => string
  doc: Ref<Doc | null>
  save: (doc: Doc, version: number, key: string) => Promise<Out>
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
  let sent: Sent<Doc> | null = null
  let gone = false
  let retry: ReturnType<typeof setTimeout> | undefined

  function remember() {
    if (options.doc.value) unsent.remember(options.key(), { doc: options.doc.value, version, sent })
  }

  /** Begin with what the server has, or with what was typed here and never reached it. */
  function begin(out: Out) {
    const stored = options.typed(out)
    inBook = JSON.stringify(stored)
    version = out.version
    theirs.value = null
    state.value = 'saved'
    sent = null
    const kept = unsent.recall<Kept<Doc>>(options.key())
    if (kept && !same(kept.doc, stored)) return takeUp(kept, out)
    unsent.forget(options.key())
    options.doc.value = stored
    void unsent
      .leftBehind<Kept<Doc>>(options.key(), () => !gone)
      .then((left) => {
        if (!left || inBook !== JSON.stringify(options.doc.value) || state.value !== 'saved') return
        if (same(left.doc, options.doc.value)) settle()
        else takeUp(left, out)
      })
  }

  /** Go on from what was typed and never reached the book; what was on its way is sent again first. */
  function takeUp(kept: Kept<Doc>, out: Out) {
    options.doc.value = kept.doc
    sent = kept.sent ?? null
    if (sent) version = sent.version
    if (sent || kept.version === out.version) return touch()
    theirs.value = out
    state.value = 'conflict'
  }

  function settle() {
    unsent.forget(options.key())
    state.value = 'saved'
  }

  async function send() {
    if (!options.doc.value || state.value === 'conflict') return
    if (!sent && JSON.stringify(options.doc.value) === inBook) {
      settle()
      return
    }
    sent ??= { doc: JSON.parse(JSON.stringify(options.doc.value)) as Doc, version, key: newKey() }
    remember()
    const { doc } = sent
    try {
      const out = await options.save(doc, sent.version, sent.key)
      sent = null
      version = out.version
      refusal.value = ''
      inBook = JSON.stringify(doc)
      if (same(doc, options.doc.value)) settle()
      else again = true
      options.saved(out)
    } catch (failure) {
      refused(failure, doc)
    }
  }

  function refused(failure: unknown, doc: Doc) {
    if (failure instanceof Unreachable || (failure instanceof Refusal && failure.problem.status >= 500)) {
      state.value = 'offline'
      clearTimeout(retry)
      retry = setTimeout(() => void flush(), RETRY_MS)
      return
    }
    sent = null
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
      return
    }
    state.value = 'refused'
    refusal.value = failure instanceof Refusal ? failure.problem.detail : String(failure)
    // what was typed since may be right
    if (!same(doc, options.doc.value)) again = true
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
    if (!running && !sent && JSON.stringify(options.doc.value) === inBook) {
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
    unsent.forget(options.key())
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
  const leave = whenBack(() => state.value === 'offline' && void flush())
  onScopeDispose(() => {
    gone = true
    leave()
    clearTimeout(retry)
    if (state.value === 'waiting') void flush()
  })

  return { state: computed(() => state.value), refusal, theirs, begin, touch, flush, keepMine, takeTheirs, adopt }
}
