import { sure } from '../kit/sure'

const STEP_CM = 0.2

/** A place on the face entered, and a rod of bone with its width, in shares of its length and width. */
export type Place = [number, number]
export type Bone = [number, number, number, number, number]
export const endsOf = ([x0, y0, x1, y1]: Bone): [Place, Place] => [
  [x0, y0],
  [x1, y1],
]
/** A bone with one of its ends put elsewhere. */
export const putEnd = ([x0, y0, x1, y1, wide]: Bone, end: number, [x, y]: Place): Bone =>
  end ? [x0, y0, x, y, wide] : [x, y, x1, y1, wide]

const WAYS: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
}
/** Where an arrow key moves a place of a face to, in shares of it; null for any other key. */
export function stepped(
  event: KeyboardEvent,
  place: Place,
  face: { length_cm: number; width_cm: number },
): Place | null {
  const way = WAYS[event.key]
  if (!way) return null
  event.preventDefault()
  return [within(place[0] + (way[0] * STEP_CM) / face.length_cm), within(place[1] + (way[1] * STEP_CM) / face.width_cm)]
}

const three = (value: number) => Math.round(value * 1000) / 1000
/** A share of the face, from 0 to 1, to three figures. */
export const within = (share: number) => three(Math.min(1, Math.max(0, share)))

interface Told {
  to?: Place
  go?: number
}

/** What a key pressed on a site asks for: that it moves, that another is gone to, or, with neither, that it goes. */
export function siteTold(
  event: KeyboardEvent,
  at: number,
  sites: Place[],
  face: { length_cm: number; width_cm: number },
): Told | null {
  const to = stepped(event, sure(sites[at]), face)
  if (to) return { to }
  const last = sites.length - 1
  const next = { PageDown: at + 1, PageUp: at - 1, Home: 0, End: last }[event.key]
  if (next === undefined && event.key !== 'Delete' && event.key !== 'Backspace') return null
  event.preventDefault()
  if (next !== undefined) return { go: Math.min(last, Math.max(0, next)) }
  // without any site of its own a piece would get the grid's again
  return last ? {} : null
}
