import { api } from '../api/client'
import { newKey } from '../api/keys'

/** Ask something that takes seconds under a key of its own; dropped before it is answered, the server drops it too. */
export function askedUnder(signal: AbortSignal): string {
  const asked = newKey()
  const gone = () => void api.POST('/api/cooks/asked/{asked}/let-go', { params: { path: { asked } } }).catch(() => null)
  signal.addEventListener('abort', gone, { once: true })
  return asked
}
