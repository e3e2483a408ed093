import { grindName, type Grind } from '../api/catalogue'
import type { Band } from '../draw/grains'
import type { Reading } from './useBlend'

type Mixture = { grind: string; share: number }[]

/** The bands of plain shares, as a revision or a row of the shelf has them. */
export function bandsOfShares(mixture: Mixture, grinds: Map<string, Grind>): Band[] {
  return mixture.flatMap(({ grind, share }) => {
    const of = grinds.get(grind)
    return of ? [{ of, name: grindName(of), share }] : []
  })
}

/** The bands of each line: one for an ingredient, joined ones for a blend inside. */
export function bandsOfLines(reading: Reading | null, grinds: Map<string, Grind>): Band[][] {
  return (reading?.lines ?? []).map((line) =>
    bandsOfShares(line.bands, grinds).map((band, at) => ({
      ...band,
      share: (band.share * line.share.value) / 100,
      joined: at > 0,
    })),
  )
}

/** The bands of a whole blend, line after line. */
export const bandsOf = (reading: Reading | null, grinds: Map<string, Grind>): Band[] =>
  bandsOfLines(reading, grinds).flat()
