import { computed } from 'vue'
import { sentenceOf, type Schemas } from '../api/client'
import { useQuestion } from '../api/question'

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
  const { answer, errors, failure, ask, clear } = useQuestion<Proposed>()
  // what has no field of its own on the panel is said on it
  const failed = computed(() => {
    const onPanel = Object.keys(errors.value).some((field) => field.startsWith('targets.'))
    return failure.value && !onPanel ? sentenceOf(failure.value) : ''
  })
  const propose = (of: Omit<Proposed, 'answer'>, propose: (signal: AbortSignal) => Promise<Proposal>) =>
    ask(async (signal) => ({ ...of, answer: await propose(signal) }))
  return { proposed: answer, errors, failed, propose, leave: clear }
}
