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
export async function put(cook: string, tap: Tap): Promise<void> {
  outbox.value = [...outbox.value, { cook, tap }]
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
  while (outbox.value[0]) {
    const cook = outbox.value[0].cook
    const mine = outbox.value.filter((one) => one.cook === cook).slice(0, MOST_AT_ONCE)
    try {
      const answer = await call(
        api.POST('/api/fire/{cook_id}/taps', {
          params: { path: { cook_id: cook } },
          body: { taps: mine.map((one) => one.tap) },
        }),
      )
      for (const refused of answer.refused) say(refused.sentence)
    } catch (failure) {
      // one that the server cannot be reached for is sent later; a cook that is gone takes no more
      if (failure instanceof Unreachable) return
    }
    const done = new Set(mine.map((one) => one.tap.key))
    outbox.value = outbox.value.filter((one) => !done.has(one.tap.key))
    await remember()
  }
}

whenBack(() => void flush())
