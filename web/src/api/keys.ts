import { sure } from '../kit/sure'
/** A random key; `crypto.randomUUID` is missing where the page came over plain HTTP from another machine. */
export function newKey(): string {
  const bytes = crypto.getRandomValues(new Uint8Array(16))
  bytes[6] = (sure(bytes[6]) & 0x0f) | 0x40
  bytes[8] = (sure(bytes[8]) & 0x3f) | 0x80
  const hex = [...bytes].map((byte) => byte.toString(16).padStart(2, '0')).join('')
  return [hex.slice(0, 8), hex.slice(8, 12), hex.slice(12, 16), hex.slice(16, 20), hex.slice(20)].join('-')
}

export const KEY = 'Idempotency-Key'
const MOST_UNANSWERED = 100

/** Keys of what was sent and never answered, by what it was. */
const unanswered = new Map<string, string>()

/**
 * Send with a key of its own whatever may write to the book. What gets no answer keeps its key: pressed again, it is the
 * same write, and the server does it once and answers what it answered then.
 */
export async function sendKeyed(request: Request): Promise<Response> {
  if (request.method === 'GET' || request.headers.has(KEY)) return fetch(request)
  const body = await request.text()
  const what = `${request.method} ${request.url} ${body}`
  const key = unanswered.get(what) ?? newKey()
  unanswered.set(what, key)
  if (unanswered.size > MOST_UNANSWERED) unanswered.delete(sure(unanswered.keys().next().value))
  const headers = new Headers(request.headers)
  headers.set(KEY, key)
  try {
    const answer = await fetch(request.url, { method: request.method, headers, body, signal: request.signal })
    // a failure of the server's may have come after the write
    if (answer.status < 500) unanswered.delete(what)
    return answer
  } catch (failure) {
    if (request.signal.aborted) unanswered.delete(what)
    throw failure
  }
}
