import { ref } from 'vue'

/** Why the server cannot be used now: it does not answer, or the book is not to be read or written to. */
export interface Trouble {
  title: string
  says: string[]
}

const LOST: Trouble = {
  title: 'Ravska’s server does not answer',
  says: [
    'What you type is kept in this window, and saved as soon as the server is back.',
    'Is Ravska still running on its machine, and is this one still in its network?',
  ],
}
const ASKS_EVERY_MS = 2000

/** What is wrong with the server, none when all is well. */
export const trouble = ref<Trouble | null>(null)
const heard = new Set<() => void>()
let asking: ReturnType<typeof setTimeout> | undefined

/** Do something when the server is back after trouble; returns how to leave off. */
export function whenBack(act: () => void): () => void {
  heard.add(act)
  return () => heard.delete(act)
}

/** Say that the server gave no answer, or could not use the book; it is asked until that is over. */
export function inTrouble(what: Trouble = LOST) {
  trouble.value = what
  clearTimeout(asking)
  asking = setTimeout(() => void ask(), ASKS_EVERY_MS)
}

async function ask() {
  try {
    const answer = await fetch('/api/ready')
    if (answer.ok) {
      trouble.value = null
      for (const act of heard) act()
      return
    }
    const { title, says } = (await answer.json()) as Trouble
    inTrouble({ title, says })
  } catch {
    inTrouble()
  }
}
