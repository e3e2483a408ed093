import type { Schemas } from '../api/client'

type Step = Schemas['StepOut']
type DayStep = Schemas['DayStep']

/** Steps of a board by what a day knows them by: their piece, kind and layer. */
const nameOf = (letter: string, kind: string, layer: number | null | undefined) => `${letter} ${kind} ${layer ?? ''}`

type Time = Schemas['StepTime']

/** When each step of a board is planned in its day, told by piece and step; nothing where the day has no such step. */
export function timesOf(planned: Time[]): (letter: string, step: Step) => Time | undefined {
  const times = new Map(planned.map((one) => [nameOf(one.letter, one.step, one.layer), one]))
  return (letter, step) => times.get(nameOf(letter, step.kind, step.layer))
}

/** The step of a board that one of its day is, with its piece; none of what only the day knows, as a fire to light. */
export function onBoard(pieces: Schemas['BoardPieceOut'][], next: DayStep) {
  const piece = pieces.find((one) => one.typed.letter === next.letter)
  const step = piece?.steps.find((one) => nameOf(next.letter, one.kind, one.layer) === nameOf(next.letter, next.step, next.layer)) // prettier-ignore
  return piece && step ? { piece, step } : null
}
