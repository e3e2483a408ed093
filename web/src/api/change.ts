import { useMutation } from '@tanstack/vue-query'
import { computed, ref, type Ref } from 'vue'
import { say } from '../kit/notice'
import { sentenceOf } from './client'

type Change<Given extends unknown[], Done> = ((...given: Given) => Promise<Done | undefined>) & { busy: Ref<boolean> }

interface Else<Given extends unknown[]> {
  refused?: (failure: unknown, given: Given) => unknown
  /** Done in the end either way, such as asking anew for a list. */
  after?: () => unknown
}

/**
 * Something that changes the book or what is on the bench. Changes of one scope go one after the other, in the order
 * they were pressed, from whatever part of the screen; the same one pressed again before it is done is not done twice.
 * What is refused is said, unless `refused` has a better place for it; it comes to nothing then.
 */
export function useChange<Given extends unknown[], Done>(
  scope: string,
  work: (...given: Given) => Promise<Done>,
  { refused = (failure) => say(sentenceOf(failure)), after = () => {} }: Else<Given> = {},
): Change<Given, Done> {
  const { mutateAsync } = useMutation({ mutationFn: (given: Given) => work(...given), scope: { id: scope } })
  const running = new Map<string | symbol, Promise<Done | undefined>>()
  const count = ref(0)

  function act(...called: Given) {
    // a button hands its click over where nothing else is given
    const given = called.filter((one) => !(one instanceof Event)) as Given
    // what to do is told by functions now and then, and two of them are never known to be the same
    const what = given.some((one) => typeof one === 'function') ? Symbol('one more') : JSON.stringify(given)
    const before = running.get(what)
    if (before) return before
    const done = mutateAsync(given)
      .catch(async (failure) => {
        await refused(failure, given)
        return undefined
      })
      .finally(async () => {
        await after()
        running.delete(what)
        count.value = running.size
      })
    running.set(what, done)
    count.value = running.size
    return done
  }
  return Object.assign(act, { busy: computed(() => count.value > 0) })
}
