import type { Schemas } from '../api/client'

/** Kinds of blend, in the order of the work. */
export const kinds: Schemas['BlendDocument']['kind'][] = [
  'dry rub', 'paste', 'binder', 'marinade', 'injection', 'glaze', 'spritz', 'cooking liquid', 'finishing salt',
] // prettier-ignore

/** How large the batch of a new blend is: a jar of what is dry, a bag of what is wet. */
export const usualBatch = (kind: string) => (['dry rub', 'finishing salt'].includes(kind) ? '100 g' : '500 g')
