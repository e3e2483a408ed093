import { onScopeDispose, ref, shallowRef } from 'vue'
import { Refusal } from '../api/client'

/** How long a mistake may stand before it is said. */
export const PATIENCE_MS = 400

/** Asks the server what a document comes to while it is typed; the last good numbers stay until new ones are there. */
export function useReading<Reading>() {
  const reading = shallowRef<Reading | null>(null)
  const errors = ref<Record<string, string>>({})
  let latest: AbortController | null = null
  let complain: ReturnType<typeof setTimeout> | undefined

  async function ask(request: (signal: AbortSignal) => Promise<Reading>) {
    latest?.abort()
    clearTimeout(complain)
    const mine = (latest = new AbortController())
    try {
      const found = await request(mine.signal)
      if (mine !== latest) return
      reading.value = found
      errors.value = {}
    } catch (failure) {
      if (mine !== latest || !(failure instanceof Refusal)) return
      const problem = failure.problem
      const found = Object.fromEntries((problem.errors ?? []).map((error) => [error.field, error.sentence]))
      // half-typed fractions are no mistakes yet
      complain = setTimeout(() => (errors.value = found), PATIENCE_MS)
    }
  }

  onScopeDispose(() => {
    latest?.abort()
    clearTimeout(complain)
  })
  return { reading, errors, ask }
}
