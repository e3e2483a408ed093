import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { effectScope, nextTick, ref, watch, type EffectScope } from 'vue'
import { Refusal, Unreachable } from '../api/client'
import { useAutosave } from './autosave'
import { sure } from '../kit/sure'

interface Doc {
  name: string
}
interface Out extends Doc {
  version: number
}

const refusal = (status: number, theirs?: Out) =>
  new Refusal({ type: 'about:blank', title: '', status, detail: 'A sentence.', errors: [], theirs: theirs as never })

let scope: EffectScope
let save: ReturnType<typeof vi.fn<(doc: Doc, version: number, key: string) => Promise<Out>>>

function started(stored: Out = { name: 'Rub', version: 1 }) {
  const doc = ref<Doc | null>(null)
  const autosave = sure(
    scope.run(() =>
      useAutosave<Doc, Out>({ key: () => 'rub', doc, save, typed: ({ name }) => ({ name }), saved: () => {} }),
    ),
  )
  autosave.begin(stored)
  watch(doc, (now, before) => now && before && autosave.touch(), { deep: true, flush: 'sync' })
  return { doc, autosave, type: (name: string) => (sure(doc.value).name = name) }
}
const settle = () => vi.advanceTimersByTimeAsync(400)
const place = (window = sessionStorage.getItem('ravska:window')) => `ravska:unsaved:rub:${window}`
const unsaved = (window?: string) => JSON.parse(localStorage.getItem(place(window)) ?? 'null') as { doc: object } | null
const calls = () => save.mock.calls.map(([doc, version]) => [doc, version])
const lastCall = () => calls().at(-1)

beforeEach(() => {
  vi.useFakeTimers()
  localStorage.clear()
  scope = effectScope()
  save = vi.fn(async (doc: Doc, version: number) => ({ ...doc, version: version + 1 }))
})
afterEach(() => {
  scope.stop()
  vi.useRealTimers()
})

describe('a document saved as it is typed', () => {
  it('is sent once after a pause, with the version it was read at', async () => {
    const { autosave, type } = started()
    type('R')
    type('Ru')
    type('Rub 2')
    expect(autosave.state.value).toBe('waiting')
    expect(unsaved()).toEqual({ doc: { name: 'Rub 2' }, version: 1, sent: null })
    await settle()
    expect(calls()).toEqual([[{ name: 'Rub 2' }, 1]])
    expect(autosave.state.value).toBe('saved')
    expect(unsaved()).toBeNull()
    type('Rub 3')
    await settle()
    expect(lastCall()).toEqual([{ name: 'Rub 3' }, 2])
  })

  it('is sent again when it was typed on while the first save was under way', async () => {
    let finish: (out: Out) => void = () => {}
    save.mockImplementationOnce(() => new Promise((resolve) => (finish = resolve)))
    const { autosave, type } = started()
    type('first')
    await settle()
    type('second')
    await settle()
    expect(save).toHaveBeenCalledTimes(1)
    finish({ name: 'first', version: 2 })
    await settle()
    expect(lastCall()).toEqual([{ name: 'second' }, 2])
    expect(autosave.state.value).toBe('saved')
  })

  it('is not sent when it was typed back to what the book has', async () => {
    const { autosave, type } = started()
    type('Rub!')
    type('Rub')
    await settle()
    expect(save).not.toHaveBeenCalled()
    expect(autosave.state.value).toBe('saved')
    expect(unsaved()).toBeNull()
  })

  it('is kept here while the server is lost, and sent when it is back', async () => {
    save.mockRejectedValueOnce(new Unreachable()).mockRejectedValueOnce(refusal(503))
    const { autosave, type } = started()
    type('kept')
    await settle()
    expect(autosave.state.value).toBe('offline')
    expect(unsaved()?.doc).toEqual({ name: 'kept' })
    await vi.advanceTimersByTimeAsync(2600)
    expect(autosave.state.value).toBe('offline')
    await vi.advanceTimersByTimeAsync(2600)
    expect(autosave.state.value).toBe('saved')
    expect(save).toHaveBeenCalledTimes(3)
  })

  it('is kept here when it cannot be read, with the reason', async () => {
    save.mockRejectedValueOnce(refusal(422))
    const { autosave, type } = started()
    type('?')
    await settle()
    expect([autosave.state.value, autosave.refusal.value]).toEqual(['refused', 'A sentence.'])
    expect(unsaved()?.doc).toEqual({ name: '?' })
    type('Rub 2')
    await settle()
    expect(autosave.state.value).toBe('saved')
  })
})

describe('a save whose answer was lost', () => {
  /** A book that saves each key once, and answers it again as it did; `lost` answers do not arrive. */
  function book(lost: number) {
    const answers = new Map<string, Out>()
    let now: Out = { name: 'Rub', version: 1 }
    save.mockImplementation(async (doc, version, key) => {
      if (!answers.has(key)) {
        if (version !== now.version) throw refusal(409, now)
        now = { ...doc, version: version + 1 }
        answers.set(key, now)
      }
      if (lost-- > 0) throw new Unreachable()
      return sure(answers.get(key))
    })
    return () => now
  }

  it('is sent again as the same save, then what was typed since: no conflict with oneself', async () => {
    const now = book(2)
    const { autosave, type } = started()
    type('first')
    await settle()
    type('second')
    await vi.advanceTimersByTimeAsync(6000)
    expect([now(), autosave.state.value]).toEqual([{ name: 'second', version: 3 }, 'saved'])
    expect(new Set(save.mock.calls.map(([, , key]) => key)).size).toBe(2)
  })

  it('is recognised after a crash of the window too', async () => {
    const now = book(1)
    const first = started()
    first.type('before the crash')
    await settle()
    scope.stop()
    scope = effectScope()
    const { autosave, doc } = started(now())
    await settle()
    expect([autosave.state.value, now().version, doc.value]).toEqual(['saved', 2, { name: 'before the crash' }])
  })
})

describe('what another window has not saved', () => {
  const other = (name: string) =>
    localStorage.setItem(place(name), JSON.stringify({ doc: { name: 'theirs' }, version: 1, sent: null }))

  it('is taken up when that window is gone', async () => {
    vi.useRealTimers()
    other('gone')
    const { doc, autosave } = started()
    expect(doc.value).toEqual({ name: 'Rub' })
    await expect.poll(lastCall, { timeout: 5000 }).toEqual([{ name: 'theirs' }, 1])
    await expect.poll(() => autosave.state.value).toBe('saved')
    expect([doc.value, unsaved('gone'), unsaved()]).toEqual([{ name: 'theirs' }, null, null])
  })

  it('is left to it while it is open', async () => {
    const open = new BroadcastChannel('ravska:windows')
    open.onmessage = ({ data }: MessageEvent<{ asks?: string; from: string }>) =>
      data.asks === 'open' && open.postMessage({ here: 'open', to: data.from })
    vi.useRealTimers()
    other('open')
    const { doc } = started()
    await new Promise((done) => setTimeout(done, 400))
    open.close()
    expect(doc.value).toEqual({ name: 'Rub' })
    expect(unsaved('open')?.doc).toEqual({ name: 'theirs' })
  })
})

describe('a document changed in another window', () => {
  it('offers both, and keeping mine is a save at their version', async () => {
    save.mockRejectedValueOnce(refusal(409, { name: 'theirs', version: 7 }))
    const { autosave, type } = started()
    type('mine')
    await settle()
    expect(autosave.state.value).toBe('conflict')
    expect(autosave.theirs.value).toEqual({ name: 'theirs', version: 7 })
    type('mine still')
    await settle()
    expect(save).toHaveBeenCalledTimes(1)
    autosave.keepMine()
    await settle()
    expect(lastCall()).toEqual([{ name: 'mine still' }, 7])
    expect(autosave.state.value).toBe('saved')
  })

  it('lets me take the other, which is not sent back', async () => {
    save.mockRejectedValueOnce(refusal(409, { name: 'theirs', version: 7 }))
    const { doc, autosave, type } = started()
    type('mine')
    await settle()
    autosave.takeTheirs()
    await settle()
    expect(doc.value).toEqual({ name: 'theirs' })
    expect(save).toHaveBeenCalledTimes(1)
    expect(autosave.state.value).toBe('saved')
    type('on from there')
    await settle()
    expect(lastCall()).toEqual([{ name: 'on from there' }, 7])
  })

  it('is no conflict when both typed the same', async () => {
    save.mockRejectedValueOnce(refusal(409, { name: 'same', version: 7 }))
    const { autosave, type } = started()
    type('same')
    await settle()
    expect(autosave.state.value).toBe('saved')
    expect(autosave.theirs.value).toBeNull()
  })
})

describe('what was typed before a reload', () => {
  const leave = (version: number) =>
    localStorage.setItem(place(), JSON.stringify({ doc: { name: 'typed' }, version, sent: null }))

  it('is restored and saved when the book has not moved', async () => {
    leave(1)
    const { doc, autosave } = started()
    expect(doc.value).toEqual({ name: 'typed' })
    await settle()
    expect(lastCall()).toEqual([{ name: 'typed' }, 1])
    expect(autosave.state.value).toBe('saved')
  })

  it('is offered beside the book when that has moved on', async () => {
    leave(1)
    const { doc, autosave } = started({ name: 'Rub, by another', version: 2 })
    await nextTick()
    expect(doc.value).toEqual({ name: 'typed' })
    expect(autosave.state.value).toBe('conflict')
    expect(autosave.theirs.value?.name).toBe('Rub, by another')
  })

  it('is forgotten when the book has it, and damaged leftovers harm nothing', () => {
    leave(1)
    const { autosave } = started({ name: 'typed', version: 2 })
    expect(autosave.state.value).toBe('saved')
    localStorage.setItem(place(), '{half')
    expect(started().doc.value).toEqual({ name: 'Rub' })
  })
})
