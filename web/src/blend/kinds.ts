import type { Schemas } from '../api/client'

/** Kinds of blend, in the order of the work. */
export const kinds: Schemas['BlendDocument']['kind'][] = [
  'dry rub', 'paste', 'binder', 'marinade', 'injection', 'glaze', 'spritz', 'cooking liquid', 'finishing salt',
] // prettier-ignore
