import { useDebounceFn } from '@vueuse/core'
import { reactive, ref, shallowRef, watch, type Ref } from 'vue'
import { byField, Refusal, sentenceOf } from '../api/client'
import { useNewest } from '../ui/newest'
import { once } from '../ui/once'

/** Something of one's own as it is typed, what it comes to, what is wrong with it, and that it is kept. */
export function useOwnForm<Doc extends object, Reads>(of: {
  open: Ref<boolean>
  blank: () => Doc
  /** What is changed, as it was typed and read; nothing for a new one. */
  own: () => { typed: Partial<Doc>; reads: Reads | null } | undefined
  read: (doc: Doc, signal: AbortSignal) => Promise<Reads>
}) {
  const doc = reactive(of.blank()) as Doc
  const errors = ref<Record<string, string>>({})
  const reads = shallowRef<Reads | null>(null)
  // what is still missing in a form that was never sent is no error yet
  let sent = false
  watch(
    of.open,
    (now) => {
      if (!now) return
      Object.assign(doc, of.blank(), JSON.parse(JSON.stringify(of.own()?.typed ?? {})))
      errors.value = {}
      reads.value = of.own()?.reads ?? null
      sent = false
    },
    { immediate: true },
  )
  const newest = useNewest()
  const ask = useDebounceFn(async () => {
    const came = await newest.ask((signal) => of.read({ ...doc }, signal))
    if (!came) return
    if ('answer' in came) {
      reads.value = came.answer
      errors.value = {}
    } else if (came.failure instanceof Refusal) {
      reads.value = null
      if (sent) errors.value = byField(came.failure)
    }
  }, 150)
  watch(doc, () => of.open.value && ask(), { deep: true })

  /** Keep it, once at a time, and close; what is refused is said at its fields. */
  const keeping = (keep: () => Promise<unknown>) =>
    once(async () => {
      sent = true
      try {
        await keep()
        of.open.value = false
      } catch (failure) {
        errors.value = failure instanceof Refusal ? byField(failure) : { name: sentenceOf(failure) }
      }
    })
  return { doc, errors, reads, keeping }
}
