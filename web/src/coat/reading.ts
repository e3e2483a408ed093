import { within, type Schemas } from '../api/client'
import { sure } from '../kit/sure'

type Out = Schemas['CoatReadingOut']
type Piece = Schemas['PieceDocument']

/** What a piece comes to, its layers in the order they are typed in: null for one that could never be read. */
export type Reading = Omit<Out, 'layers' | 'marks'> & {
  layers: (Out['layers'][number] | null)[]
  marks: (Out['marks'][number] | null)[]
}

/** Return a reading with its layers as they are typed, where one that could not be read was left out of it. */
export function inOrder(out: Out): Reading {
  const typed = (place: number | null | undefined) => (typeof place === 'number' ? out.places.indexOf(place) : null)
  return {
    ...out,
    layers: out.places.map((place) => (place === null ? null : sure(out.layers[place]))),
    marks: out.places.map((place) => (place === null ? null : sure(out.marks[place]))),
    cautions: out.cautions.map((caution) => ({ ...caution, layer: typed(caution.layer) })),
    gives: typed(out.gives),
  }
}

/** Return the pieces as they were last read: those of `sent` that were now, or else as the server took them. */
export function lastRead(before: Map<string, Piece>, sent: Piece[], readings: (Out | null)[]): Map<string, Piece> {
  const found = new Map(before)
  sent.forEach((piece, at) => {
    const reading = readings[at]
    if (reading) found.set(piece.letter, reading.before ?? piece)
  })
  return found
}

/** Return the sentences at the fields of a whole board; of a piece that could never be read, those it was saved with. */
export function wrongFields(readings: (Out | null)[], saved: Schemas['FieldError'][]): Record<string, string> {
  const kept = Object.fromEntries(saved.map((error) => [error.field, error.sentence]))
  const found: Record<string, string> = {}
  readings.forEach((reading, at) => {
    const start = `pieces.${at}.`
    const mine = reading
      ? Object.fromEntries(reading.errors.map((error) => [error.field, error.sentence]))
      : within(kept, start)
    for (const [field, sentence] of Object.entries(mine)) found[start + field] = sentence
  })
  for (const field of ['name', 'serve_at', 'eaters']) if (kept[field]) found[field] = kept[field]
  return found
}

/** Whether a layer's figures rest on what was last read: it, or the piece it is on, cannot be read now. */
export function isOld(errors: Record<string, string>, layer: number): boolean {
  return Object.keys(errors).some((field) => !field.startsWith('layers.') || field.startsWith(`layers.${layer}.`))
}

const WORDS: Record<string, string> = {
  mass: 'raw weight',
  untrimmed: 'weight untrimmed',
  count: 'how many pieces',
  endpoint: 'done at',
  thin: 'thin end',
  cut_size: 'how large it is cut',
  hold: 'how long it is held',
  hold_at: 'how warm it is held',
  stays: 'how much stays',
  eaten: 'how much is eaten',
  reserve: 'what is set aside',
  target: 'salt wanted',
  stages: 'before and after its layers',
  serve_at: 'when it is served',
  eaters: 'how many eat',
  blend: 'what goes on',
}

/** Return a field in words. */
export function fieldWords(field: string): string {
  const [first = field, , inLayer, inPlan] = field.split('.')
  const name = (first === 'layers' && (inLayer === 'injection' ? inPlan : inLayer)) || first
  return WORDS[name] ?? name.replaceAll('_', ' ')
}
