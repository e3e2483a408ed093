import { get, set } from 'idb-keyval'
import { ref } from 'vue'
import { api, call, sentenceOf, Unreachable, type Schemas } from '../api/client'
import { whenBack } from '../api/server'
import { say } from '../kit/notice'

/** A tap as it is sent: the time is always said, so that it is right however late it gets there. */
export type Tap = Partial<Schemas['TapDocument']> & { key: string; what: string; at: string }
export interface Kept {
  cook: string
  tap: Tap
  /** A photo, made small in this page: base64 of a JPEG. */
  jpeg?: string
}

const PLACE = 'ravska:taps'
const MOST_AT_ONCE = 100

/** Taps that are not in the book yet, in the order they were made; kept in this browser's own database. */
export const outbox = ref<Kept[]>([])
let sending: Promise<void> | null = null
let loaded: Promise<void> | null = null

const plain = (kept: Kept[]) => JSON.parse(JSON.stringify(kept)) as Kept[]
const remember = () => set(PLACE, plain(outbox.value)).catch(() => {})

/** Take up what was left from before the page was loaded. */
export function takeUp(): Promise<void> {
  loaded ??= get<Kept[]>(PLACE)
    .then((left) => {
      const there = new Set(outbox.value.map((one) => one.tap.key))
      outbox.value = [...(left ?? []).filter((one) => !there.has(one.tap.key)), ...outbox.value]
    })
    .catch(() => {})
  return loaded.then(() => flush())
}

/** Keep a tap and send it as soon as that is possible; done once it is kept here. */
export async function put(cook: string, tap: Tap, jpeg?: string): Promise<void> {
  outbox.value = [...outbox.value, jpeg ? { cook, tap, jpeg } : { cook, tap }]
  await remember()
  void flush()
}

/** Send a tap at once, so that what is refused of it is said where it was typed; kept for later where none answers. */
export async function sendNow(cook: string, tap: Tap): Promise<string> {
  if (!outbox.value.length) {
    try {
      const answer = await call(
        api.POST('/api/fire/{cook_id}/taps', { params: { path: { cook_id: cook } }, body: { taps: [tap] } }),
      )
      return answer.refused[0]?.sentence ?? ''
    } catch (failure) {
      if (!(failure instanceof Unreachable)) return sentenceOf(failure)
    }
  }
  await put(cook, tap)
  return ''
}

/** Send what is kept, in order, each once; what gets no answer stays. */
function flush(): Promise<void> {
  sending ??= sendAll().finally(() => (sending = null))
  return sending
}

async function sendAll(): Promise<void> {
  for (let first = outbox.value[0]; first; first = outbox.value[0]) {
    const mine = together(outbox.value)
    try {
      await (first.jpeg ? sendPhoto(first.cook, first.tap, first.jpeg) : sendTaps(first.cook, mine))
    } catch (failure) {
      // one that the server cannot be reached for is sent later; a cook that is gone takes no more
      if (failure instanceof Unreachable) return
      say(sentenceOf(failure))
    }
    const done = new Set(mine.map((one) => one.tap.key))
    outbox.value = outbox.value.filter((one) => !done.has(one.tap.key))
    await remember()
  }
}

/** What is sent at once: a photo alone, taps of one cook up to the next photo together. */
function together(kept: Kept[]): Kept[] {
  const [first] = kept
  if (!first || first.jpeg) return first ? [first] : []
  const ends = kept.findIndex((one) => one.cook !== first.cook || one.jpeg)
  return kept.slice(0, Math.min(ends < 0 ? kept.length : ends, MOST_AT_ONCE))
}

async function sendTaps(cook: string, mine: Kept[]) {
  const answer = await call(
    api.POST('/api/fire/{cook_id}/taps', {
      params: { path: { cook_id: cook } },
      body: { taps: mine.map((one) => one.tap) },
    }),
  )
  for (const refused of answer.refused) say(refused.sentence)
}

const sendPhoto = (cook: string, tap: Tap, jpeg: string) =>
  call(
    api.POST('/api/fire/{cook_id}/photo', {
      params: { path: { cook_id: cook } },
      body: { tap: { note: '', word: '', celsius: '', grams: '', side: '', step: '', letter: '', ...tap }, jpeg },
    }),
  )

whenBack(() => void flush())
