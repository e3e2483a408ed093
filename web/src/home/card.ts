import type { Schemas } from '../api/client'
import { dayAndTime, longDay, time } from '../kit/units'
import { stepDetail, stepName, type Show } from './steps'

export interface Card {
  title: string
  noted: string
  pieces: { letter: string; title: string; salt: string; layers: string[]; steps: string[] }[]
}

interface Names {
  cut: (key: string) => string
  grind: (key: string) => string
  percent: (value: number) => string
}

/** A cook as one card: the meat, what goes on it in order, and when what is done. */
export function cardOf(cook: Schemas['BoardOut'], show: Show, names: Names): Card {
  const pieces = cook.pieces.map((piece) => ({
    letter: piece.typed.letter,
    title: `${piece.typed.name}: ${names.cut(piece.typed.cut)}, ${piece.typed.mass}`,
    salt: piece.reading ? `${names.percent(piece.reading.salt.value)} salt in all` : '',
    layers: piece.typed.layers.map((layer, at) => {
      const read = piece.reading?.layers[at]
      const name = piece.marks[at]?.blend_name || (layer.grind && names.grind(layer.grind)) || layer.kind
      const amount = read && (read.dose.unit === 'ml' ? show.volume(read.dose.value) : show.dose(read.dose.value))
      const spoons = read && read.dose.unit !== 'ml' && read.spoons.text
      const each = read?.each_g.length && `on each ${read.each_g.map((grams) => show.dose(grams)).join(' + ')}`
      return [`${name}, ${layer.kind}`, amount, spoons, each, layer.hold && `hold ${layer.hold}`]
        .filter(Boolean)
        .join(', ')
    }),
    steps: piece.steps.map((step) =>
      [`${dayAndTime(step.begins_at)} ${stepName(step.kind)}`, stepDetail(step, piece, show)]
        .filter(Boolean)
        .join(', '),
    ),
  }))
  return { title: `${cook.name}, ${longDay(cook.serve_at)} ${time(cook.serve_at)}`, noted: cook.noted, pieces }
}

/** The card as text, to send. */
export function cardText({ title, noted, pieces }: Card): string {
  const parts = pieces.map(({ letter, title, salt, layers, steps }) =>
    [
      `${letter}  ${title}${salt && `, ${salt}`}`,
      ...layers.map((line, at) => `  ${at + 1}. ${line}`),
      ...steps.map((line) => `  ${line}`),
    ].join('\n'),
  )
  return [title, ...(noted ? [`Last time: ${noted}`] : []), ...parts].join('\n\n') + '\n'
}
