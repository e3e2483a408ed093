import { ref, shallowRef } from 'vue'
import { Refusal, sentenceOf, type Schemas } from '../api/client'

export type Proposal = Schemas['ProposalOut']
export interface Proposed {
  /** What asked for it: it is replaced by the same asker only. */
  by: 'aim' | 'adapt' | 'revision'
  title: string
  /** The name a branch of it would have. */
  name: string
  answer: Proposal
}

/** A blend that is proposed, with its difference shown, before it is taken. The newest answer stands. */
export function useProposal() {
  const proposed = shallowRef<Proposed | null>(null)
  const errors = ref<Record<string, string>>({})
  const failed = ref('')
  let latest: AbortController | null = null

  async function propose(of: Omit<Proposed, 'answer'>, ask: (signal: AbortSignal) => Promise<Proposal>) {
    latest?.abort()
    const mine = (latest = new AbortController())
    try {
      const answer = await ask(mine.signal)
      if (mine !== latest) return
      proposed.value = { ...of, answer }
      errors.value = {}
      failed.value = ''
    } catch (failure) {
      if (mine !== latest) return
      const found = failure instanceof Refusal ? (failure.problem.errors ?? []) : []
      errors.value = Object.fromEntries(found.map((error) => [error.field, error.sentence]))
      // what has no field of its own on the panel is said on it
      failed.value = found.some((error) => error.field.startsWith('targets.')) ? '' : sentenceOf(failure)
    }
  }

  function leave() {
    latest?.abort()
    latest = null
    proposed.value = null
    errors.value = {}
    failed.value = ''
  }

  return { proposed, errors, failed, propose, leave }
}
