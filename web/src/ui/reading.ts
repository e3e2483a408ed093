import { onScopeDispose, ref, shallowRef } from 'vue'
import { byField, Refusal } from '../api/client'
import { useNewest } from './newest'

/** How long a mistake may stand before it is said. */
export const PATIENCE_MS = 400

/** Asks the server what a document comes to while it is typed; the last good numbers stay until new ones are there. */
export function useReading<Reading>() {
  const reading = shallowRef<Reading | null>(null)
  const errors = ref<Record<string, string>>({})
  const newest = useNewest()
  let complain: ReturnType<typeof setTimeout> | undefined

  async function ask(request: (signal: AbortSignal) => Promise<Reading>) {
    clearTimeout(complain)
    const came = await newest.ask(request)
    if (!came) return
    if ('answer' in came) {
      reading.value = came.answer
      errors.value = {}
    } else if (came.failure instanceof Refusal) {
      const found = byField(came.failure)
      // half-typed fractions are no mistakes yet
      complain = setTimeout(() => (errors.value = found), PATIENCE_MS)
    }
  }

  onScopeDispose(() => clearTimeout(complain))
  return { reading, errors, ask }
}
