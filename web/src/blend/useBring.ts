import { computed, ref, watch } from 'vue'
import { useQueryClient } from '@tanstack/vue-query'
import { api, call, Refusal, type Schemas } from '../api/client'
import { refresh } from '../api/kept'
import { useQuestion } from '../api/question'
import * as unsent from '../edit/unsent'
import { say } from '../kit/notice'
import { sure } from '../kit/sure'
import type { Doc } from './useBlend'

type Brought = Schemas['BroughtOut']
type Answer = Schemas['AnswerDocument']
const KEPT = 'bring'

/** A list that is brought in: its text, what was understood of it, and what was answered where that asks. */
export function useBring() {
  const queries = useQueryClient()
  const text = ref(unsent.recall<{ text: string }>(KEPT)?.text ?? '')
  void unsent.leftBehind<{ text: string }>(KEPT).then((left) => (text.value ||= left?.text ?? ''))
  const answers = ref<Answer[]>([])
  const name = ref('')
  const kind = ref<Doc['kind'] | ''>('')

  const question = useQuestion<Brought | null>({
    after: 200,
    ask: async (signal) => {
      const body = { text: text.value, format: '' as const, answers: answers.value }
      return text.value.trim() ? call(api.POST('/api/blends/bring', { body, signal })) : null
    },
  })
  const { current } = question
  /** Whether it could not be read at all; what is wrong with a line leaves the others to be seen. */
  const unread = computed(() => !!question.failure.value && !(question.failure.value instanceof Refusal))
  const errors = computed<Record<string, string>>(() =>
    unread.value ? { text: question.says.value } : question.errors.value,
  )
  const brought = computed(() => (question.errors.value.text ? null : question.answer.value))
  const ask = () => void question.ask()
  watch(
    text,
    (now) => {
      if (now) unsent.remember(KEPT, { text: now.slice(0, 400_000) })
      else unsent.forget(KEPT)
      answers.value = []
      ask()
    },
    { immediate: true },
  )
  watch(answers, ask, { deep: true })

  const errorOf = (line: number, item: number) => {
    const at = answers.value.findIndex((x) => x.line === line && x.item === item)
    return at < 0 ? '' : (errors.value[`answers.${at}.amount`] ?? errors.value[`answers.${at}.grind`] ?? '')
  }
  function answer(line: number, item: number, given: Partial<Answer>) {
    const before = answers.value.find((x) => x.line === line && x.item === item)
    const made = { grind: '', blend: null, amount: '', leave_out: false, ...before, line, item, ...given }
    answers.value = [...answers.value.filter((x) => x !== before), made]
  }
  const given = (line: number, item: number) => answers.value.find((x) => x.line === line && x.item === item)

  const asked = computed(() => brought.value?.asked ?? 0)
  const ready = computed(() => current.value && !!brought.value?.made.length && !asked.value)
  const chosenKind = computed({
    get: () => kind.value || ((brought.value?.kind ?? 'dry rub') as Doc['kind']),
    set: (to) => (kind.value = to),
  })
  const chosenName = computed({
    get: () => name.value || brought.value?.name || '',
    set: (to) => (name.value = to),
  })

  async function file(event: Event | DragEvent) {
    const files = 'dataTransfer' in event ? event.dataTransfer?.files : (event.target as HTMLInputElement).files
    const one = files?.[0]
    if (!one) return
    if (one.size > 400_000)
      return say('That file is larger than 400 kB, too much for a recipe; bring in one at a time.')
    text.value = await one.text()
  }
  /** Make the blend it is; what was brought in is forgotten. */
  async function make() {
    const found = sure(brought.value)
    const read: Omit<Doc, 'name' | 'kind'> = found.exact ?? {
      fire: '',
      batch: found.batch || '100 g',
      lines: found.made,
      written: found.written,
      base: 0,
      total: found.written === 'percent' ? 'fixed' : 'free',
      targets: [],
      uses: found.uses,
      method: found.method,
      label: null,
    }
    const body: Doc = { ...read, name: chosenName.value.trim() || 'Brought in', kind: chosenKind.value }
    const made = await call(api.POST('/api/blends', { body }))
    unsent.forget(KEPT)
    await refresh(queries, ['blends'])
    return made
  }
  return {
    text,
    name,
    kind,
    question,
    unread,
    errors,
    brought,
    ask,
    errorOf,
    answer,
    given,
    asked,
    ready,
    chosenKind,
    chosenName,
    file,
    make,
  }
}
