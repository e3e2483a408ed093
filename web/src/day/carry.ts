import type { clockOf } from './clock'

export type Clock = ReturnType<typeof clockOf>
export interface Pin {
  letter: string
  key: string
  begins_at: string | null
}

/** What is dragged is dropped on five minutes. */
const GRAIN_MS = 300_000

/** Something is dragged along a day's axis: how far it is carried, then at which moment it is dropped. */
export function carryAlong(
  start: PointerEvent,
  clock: Clock,
  wide: number,
  /** Where it lies before it is carried; its own edge is what is dropped. */
  from: number,
  moves: (x: number | null) => void,
  drop: (at: number) => void,
) {
  const place = (event: PointerEvent) => Math.min(wide, Math.max(0, from + event.clientX - start.clientX))
  const moved = (event: PointerEvent) => moves(place(event))
  const ended = (event: PointerEvent) => {
    window.removeEventListener('pointermove', moved)
    window.removeEventListener('pointerup', ended)
    window.removeEventListener('pointercancel', ended)
    moves(null)
    if (event.type === 'pointerup' && Math.abs(event.clientX - start.clientX) > 3)
      drop(Math.round(clock.x.invert(place(event)) / GRAIN_MS) * GRAIN_MS)
  }
  window.addEventListener('pointermove', moved)
  window.addEventListener('pointerup', ended)
  window.addEventListener('pointercancel', ended)
}

/** So much later, on the grain that things are moved by. */
export const nudged = (iso: string, by: number) => Date.parse(iso) + by * GRAIN_MS
