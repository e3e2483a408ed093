import type { Schemas } from '../api/client'

/** A card while it is filled: nothing of it is in the book yet. */
export interface Filled {
  taster: string
  short: boolean
  served: string[]
  prefers: string
  odd: string
  guess: string
  order: string[]
  /** Plates that are as good as the one before them in the order. */
  ties: string[]
  scores: Record<string, number>
  words: Record<string, string[]>
}

export const blankCard = (): Filled => ({
  taster: '', short: false, served: [], prefers: '', odd: '', guess: '', order: [], ties: [], scores: {}, words: {},
}) // prettier-ignore

export const NONE = 'none'

/** The card as it is handed in. */
export function asDocument(card: Filled, left = false): Schemas['CardDocument'] {
  const scores = Object.entries(card.scores).map(([key, value]) => {
    const [code = '', scale = ''] = key.split('|')
    return { code, scale, value }
  })
  const ranks = Object.entries(placesOf(card.order, card.ties)).map(([code, value]) => ({ code, scale: 'rank', value }))
  return {
    taster: card.taster.trim(),
    served: card.served,
    scores: [...scores, ...ranks],
    prefers: card.prefers && card.prefers !== NONE ? card.prefers : null,
    odd: card.odd || null,
    guess: card.guess || null,
    words: Object.entries(card.words)
      .filter(([, words]) => words.length)
      .map(([code, words]) => ({ code, words })),
    short: card.short,
    left,
  }
}

/** What a card asks step by step: who, what decides, each plate by itself, and what it was taken for. */
export function stepsOf(table: Schemas['TableOut'], card: Filled): string[] {
  const plates = card.served.map((code) => `plate ${code}`)
  if (card.short) return ['who', 'faces']
  const guess = table.guess ? ['guess'] : []
  // how much a plate is liked is asked with the plate, everything else once all are tasted
  const decides = table.kind === 'scores' ? [] : ['decides']
  return ['who', ...decides, ...plates, ...guess]
}

/** The place of each plate in the order, 1 for the best; one that is as good as the one before shares its place. */
export function placesOf(order: string[], ties: string[]): Record<string, number> {
  const places: Record<string, number> = {}
  order.forEach((code, at) => {
    places[code] = at && ties.includes(code) ? (places[order[at - 1] ?? ''] ?? at) : at + 1
  })
  return places
}
export const toggledTie = (ties: string[], code: string): string[] =>
  ties.includes(code) ? ties.filter((one) => one !== code) : [...ties, code]

/** Tap a plate into the order, or out of it and of all that came after. */
export const tapped = (order: string[], code: string): string[] =>
  order.includes(code) ? order.slice(0, order.indexOf(code)) : [...order, code]
