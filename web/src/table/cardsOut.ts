import { get, set } from 'idb-keyval'
import { ref } from 'vue'
import { api, call, sentenceOf, Unreachable, type Schemas } from '../api/client'
import { KEY, newKey } from '../api/keys'
import { whenBack } from '../api/server'
import { say } from '../kit/notice'

/** Cards that were handed in while no server answered: kept in this browser, sent when it is back, each once. */
interface Kept {
  trial: string
  key: string
  card: Schemas['CardDocument']
}
const PLACE = 'ravska:cards'
export const cardsOut = ref<Kept[]>([])
let loaded: Promise<void> | null = null
let sending: Promise<void> | null = null

const remember = () => set(PLACE, JSON.parse(JSON.stringify(cardsOut.value)) as Kept[]).catch(() => {})

const send = ({ trial, key, card }: Kept) =>
  call(
    api.POST('/api/trials/{trial_id}/cards', {
      params: { path: { trial_id: trial } },
      body: card,
      headers: { [KEY]: key },
    }),
  )

/** Hand a card in; where no server answers it is kept and sent later, and `null` is returned. */
export async function handIn(trial: string, card: Schemas['CardDocument']): Promise<Schemas['TableOut'] | null> {
  const kept = { trial, key: newKey(), card }
  try {
    return await send(kept)
  } catch (failure) {
    if (!(failure instanceof Unreachable)) throw failure
    await takeUp()
    cardsOut.value = [...cardsOut.value, kept]
    await remember()
    return null
  }
}

/** Take up what was left from before the page was loaded, and send it. */
export function takeUp(): Promise<void> {
  loaded ??= get<Kept[]>(PLACE)
    .then((left) => {
      const there = new Set(cardsOut.value.map((one) => one.key))
      cardsOut.value = [...(left ?? []).filter((one) => !there.has(one.key)), ...cardsOut.value]
    })
    .catch(() => {})
  return loaded.then(() => void flush())
}

function flush(): Promise<void> {
  sending ??= sendAll().finally(() => (sending = null))
  return sending
}

async function sendAll() {
  for (let first = cardsOut.value[0]; first; first = cardsOut.value[0]) {
    const { key, card } = first
    try {
      await send(first)
      say(`${card.taster}’s card is in.`)
    } catch (failure) {
      if (failure instanceof Unreachable) return
      say(`${card.taster}’s card: ${sentenceOf(failure)}`)
    }
    cardsOut.value = cardsOut.value.filter((one) => one.key !== key)
    await remember()
  }
}

whenBack(() => void flush())
