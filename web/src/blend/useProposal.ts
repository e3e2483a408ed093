import { ref, shallowRef } from 'vue'
import { byField, sentenceOf, type Schemas } from '../api/client'
import { useNewest } from '../ui/newest'

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
  const newest = useNewest()

  async function propose(of: Omit<Proposed, 'answer'>, ask: (signal: AbortSignal) => Promise<Proposal>) {
    const came = await newest.ask(ask)
    if (!came) return
    if ('answer' in came) {
      proposed.value = { ...of, answer: came.answer }
      errors.value = {}
      failed.value = ''
    } else {
      errors.value = byField(came.failure)
      // what has no field of its own on the panel is said on it
      const onPanel = Object.keys(errors.value).some((field) => field.startsWith('targets.'))
      failed.value = onPanel ? '' : sentenceOf(came.failure)
    }
  }

  function leave() {
    newest.drop()
    proposed.value = null
    errors.value = {}
    failed.value = ''
  }

  return { proposed, errors, failed, propose, leave }
}
