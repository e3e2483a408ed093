import { onScopeDispose, ref, shallowRef } from 'vue'
import { byField, Refusal } from '../api/client'
import { useNewest } from './newest'

/** How long a mistake may stand before it is said. */
export const PATIENCE_MS = 400

/**
 * Asks the server what a document comes to while it is typed; the last good numbers stay until new ones are there.
 * `wrong` tells what an answer could not make out, which is shown when it has stood for a while.
 */
export function useReading<Reading>(wrong: (reading: Reading) => Record<string, string> = () => ({})) {
  const reading = shallowRef<Reading | null>(null)
  const errors = ref<Record<string, string>>({})
  const newest = useNewest()
  let complain: ReturnType<typeof setTimeout> | undefined

  async function ask(request: (signal: AbortSignal) => Promise<Reading>) {
    clearTimeout(complain)
    const came = await newest.ask(request)
    if (!came) return
    if ('answer' in came) {
      const found = wrong(came.answer)
      const show = () => {
        reading.value = came.answer
        errors.value = found
      }
      // what stood there before may go on standing there; what is new in it may be half typed
      if (Object.keys(found).every((field) => field in errors.value)) show()
      else complain = setTimeout(show, PATIENCE_MS)
    } else if (came.failure instanceof Refusal) {
      const found = byField(came.failure)
      // half-typed fractions are no mistakes yet
      complain = setTimeout(() => (errors.value = found), PATIENCE_MS)
    }
  }

  onScopeDispose(() => clearTimeout(complain))
  return { reading, errors, ask }
}
