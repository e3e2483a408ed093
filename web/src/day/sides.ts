import type { Schemas } from '../api/client'

/** A side as typed, every field of it. */
export type SideTyped = Required<Schemas['SideDocument']>
