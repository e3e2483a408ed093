import { newKey } from '../api/keys'

/**
 * Text that has not reached the book, in this browser's own store: each window keeps its own, so that neither writes over
 * the other's, and what a window left behind that is gone is found by the next that opens the same thing.
 */
const START = 'ravska:unsaved:'
const WINDOW = 'ravska:window'
/** How long windows that are open have to say so. */
const ANSWER_MS = 150

type Said = { asks: string; from: string } | { here: string; to: string }

const me = newKey()
let mine = sessionStorage.getItem(WINDOW) ?? newKey()
sessionStorage.setItem(WINDOW, mine)

const channel = typeof BroadcastChannel === 'undefined' ? null : new BroadcastChannel('ravska:windows')
channel?.addEventListener('message', ({ data }: MessageEvent<Said>) => {
  if ('asks' in data && data.asks === mine && data.from !== me) channel.postMessage({ here: mine, to: data.from })
})

/** Whether a window of this name is open, other than this one. */
function isOpen(name: string): Promise<boolean> {
  if (!channel) return Promise.resolve(false)
  return new Promise((answer) => {
    const hear = ({ data }: MessageEvent<Said>) => {
      if ('here' in data && data.here === name && data.to === me) done(true)
    }
    const done = (open: boolean) => {
      clearTimeout(waits)
      channel.removeEventListener('message', hear)
      answer(open)
    }
    const waits = setTimeout(() => done(false), ANSWER_MS)
    channel.addEventListener('message', hear)
    channel.postMessage({ asks: name, from: me })
  })
}

// a tab that was doubled begins with the name of the one it came from
const named = isOpen(mine).then((taken) => {
  if (taken) sessionStorage.setItem(WINDOW, (mine = newKey()))
})

const place = (of: string, window = mine) => `${START}${of}:${window}`

function read<Kept>(at: string): Kept | null {
  try {
    return JSON.parse(localStorage.getItem(at) ?? 'null') as Kept | null
  } catch {
    return null
  }
}

export function remember(of: string, kept: object) {
  try {
    localStorage.setItem(place(of), JSON.stringify(kept))
  } catch {
    // the store is full or shut: the text stands on the screen, and goes to the book from there
  }
}

export const recall = <Kept>(of: string): Kept | null => read<Kept>(place(of))

export const forget = (of: string) => localStorage.removeItem(place(of))

/** What a window that is gone had not sent of the same thing, where this one has nothing and still wants it. */
export async function leftBehind<Kept extends object>(of: string, wanted = () => true): Promise<Kept | null> {
  await named
  if (recall(of) || !wanted()) return null
  const places = Object.keys(localStorage).filter((at) => at.startsWith(`${START}${of}:`) && at !== place(of))
  for (const at of places) {
    const kept = read<Kept>(at)
    if (kept && (await isOpen(at.slice(place(of, '').length)))) continue
    if (recall(of) || !wanted()) return null // typed meanwhile, or left
    localStorage.removeItem(at)
    if (!kept) continue
    remember(of, kept)
    return kept
  }
  return null
}
