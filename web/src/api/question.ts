import { computed, onScopeDispose, ref, shallowRef, type ShallowRef } from 'vue'
import { byField, Refusal, sentenceOf, Unreachable } from './client'
import { whenBack } from './server'

/** How long a mistake may stand before it is said where someone is still typing. */
export const PATIENCE_MS = 400

type Ask<Answer> = (signal: AbortSignal) => Promise<Answer>

interface Of<Answer> {
  /** Asks the server; a question that changes may be given anew with each `ask`. */
  ask?: Ask<Answer>
  /** How long to wait for the next key before it is asked [ms]. */
  after?: number
  /** How long a mistake may stand before it is said [ms]. */
  patience?: number
  /** What an answer could not make out, by field. */
  wrong?: (answer: Answer) => Record<string, string>
  came?: (answer: Answer) => void
}

/**
 * A question that writes nothing, asked again while it is typed. Only the newest counts: the one before is called off,
 * and what comes of it all the same is dropped. The last answer stands until there is a new one; what was refused is
 * said by field, and what got no answer is asked again when the server is back.
 */
export function useQuestion<Answer>(of: Of<Answer> = {}) {
  const answer: ShallowRef<Answer | null> = shallowRef(null)
  const errors = ref<Record<string, string>>({})
  /** Why there is no newer answer; none once there is. */
  const failure = shallowRef<unknown>(null)
  /** Whether the answer is of what is asked now. */
  const current = ref(false)
  let request = of.ask
  let newest: AbortController | null = null
  let waits: ReturnType<typeof setTimeout> | undefined
  let complains: ReturnType<typeof setTimeout> | undefined

  /** Call off what is on its way, as what was asked no longer holds. */
  function drop() {
    clearTimeout(waits)
    clearTimeout(complains)
    newest?.abort()
    newest = null
    current.value = false
  }

  /** Forget the answer too. */
  function clear() {
    drop()
    answer.value = failure.value = null
    errors.value = {}
  }

  function complain(show: () => void) {
    if (of.patience) complains = setTimeout(show, of.patience)
    else show()
  }

  function answered(came: Answer) {
    const found = of.wrong?.(came) ?? {}
    const show = () => {
      answer.value = came
      errors.value = found
      failure.value = null
      current.value = true
      of.came?.(came)
    }
    // what stood there before may go on standing there; what is new in it may be half typed
    if (Object.keys(found).every((field) => field in errors.value)) show()
    else complain(show)
  }

  function refused(why: unknown) {
    failure.value = why
    if (why instanceof Refusal) complain(() => (errors.value = byField(why)))
  }

  async function send() {
    if (!request) return
    const mine = (newest = new AbortController())
    try {
      const came = await request(mine.signal)
      if (mine === newest) answered(came)
    } catch (why) {
      if (mine === newest) refused(why)
    }
  }

  /** Ask, or ask something else. */
  async function ask(other?: Ask<Answer>): Promise<void> {
    drop()
    if (other) request = other
    if (!of.after) return send()
    waits = setTimeout(() => void send(), of.after)
  }

  const leave = whenBack(() => failure.value instanceof Unreachable && void ask())
  onScopeDispose(() => {
    leave()
    drop()
  })
  /** What to tell of a failure, where no field says it. */
  const says = computed(() => (failure.value ? sentenceOf(failure.value) : ''))
  return { answer, errors, failure, current, says, ask, drop, clear }
}
