import type { Schemas } from '../api/client'

type Step = Schemas['StepOut']
type DayStep = Schemas['DayStep']

/** Steps of a board by what a day knows them by: their piece, kind and layer. */
const nameOf = (letter: string, kind: string, layer: number | null | undefined) => `${letter} ${kind} ${layer ?? ''}`

export interface Time {
  begins: string
  ends: string
}

/** When each step of a board is planned in its day, told by piece and step; nothing where the day has no such step. */
export function timesOf(lanes: Schemas['DayLane'][]): (letter: string, step: Step) => Time | undefined {
  const times = new Map<string, Time>()
  for (const lane of lanes) {
    for (const one of lane.blocks) {
      const name = nameOf(lane.letter, one.step, one.layer)
      // on the fire is all of it until it is taken off
      const ends = one.step === 'on' ? lane.blocks.find((other) => other.key === 'off')?.begins_at : undefined
      if (one.step && !times.has(name)) times.set(name, { begins: one.begins_at, ends: ends ?? one.ends_at })
    }
  }
  return (letter, step) => times.get(nameOf(letter, step.kind, step.layer))
}

/** The step of a board that one of its day is, with its piece; none of what only the day knows, as a fire to light. */
export function onBoard(pieces: Schemas['BoardPieceOut'][], next: DayStep) {
  const piece = pieces.find((one) => one.typed.letter === next.letter)
  const step = piece?.steps.find((one) => nameOf(next.letter, one.kind, one.layer) === nameOf(next.letter, next.step, next.layer)) // prettier-ignore
  return piece && step ? { piece, step } : null
}
