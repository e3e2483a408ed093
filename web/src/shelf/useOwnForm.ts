import { computed, reactive, ref, watch, type Ref } from 'vue'
import { byField, Refusal, sentenceOf } from '../api/client'
import { useChange } from '../api/change'
import { useQuestion } from '../api/question'

/** Something of one's own as it is typed, what it comes to, what is wrong with it, and that it is kept. */
export function useOwnForm<Doc extends object, Reads>(of: {
  open: Ref<boolean>
  blank: () => Doc
  /** What is changed, as it was typed and read; nothing for a new one. */
  own: () => { typed: Partial<Doc>; reads: Reads | null } | undefined
  read: (doc: Doc, signal: AbortSignal) => Promise<Reads>
}) {
  const doc = reactive(of.blank()) as Doc
  const question = useQuestion<Reads>({ after: 150, ask: (signal) => of.read({ ...doc }, signal) })
  const reads = computed(() => (question.failure.value instanceof Refusal ? null : question.answer.value))
  // what is still missing in a form that was never sent is no error yet
  const sent = ref(false)
  const errors = computed(() => (sent.value ? question.errors.value : {}))
  watch(
    of.open,
    (now) => {
      question.clear()
      if (!now) return
      Object.assign(doc, of.blank(), JSON.parse(JSON.stringify(of.own()?.typed ?? {})))
      question.answer.value = of.own()?.reads ?? null
      sent.value = false
    },
    { immediate: true },
  )
  watch(doc, () => of.open.value && question.ask(), { deep: true })

  /** Keep it and close; what is refused is said at its fields. */
  const keeping = (keep: () => Promise<unknown>) =>
    useChange(
      'own',
      async () => {
        sent.value = true
        await keep()
        of.open.value = false
      },
      {
        refused: (failure) => {
          question.errors.value = failure instanceof Refusal ? byField(failure) : { name: sentenceOf(failure) }
        },
      },
    )
  return { doc, errors, reads, keeping }
}
