import type { Schemas } from '../api/client'
import { askedAs } from './scales'
import type { Table } from './useTable'

/** The columns of a paper card: the place in the order, then the scales, as they stand on it. */
export function columnsOf(table: Table): { key: string; title: string }[] {
  const ranks = table.kind === 'ranking' ? [{ key: 'rank', title: 'Place' }] : []
  const asks = table.scales.map((scale) => ({ key: scale.name, title: askedAs(scale.name) }))
  const overall = table.kind === 'scores' && !asks.some((one) => one.key === 'overall')
  return [...ranks, ...(overall ? [{ key: 'overall', title: 'Overall' }] : []), ...asks]
}

/** A paper card as it was typed in, with the cell that each of its scores stands in. */
export function asTyped(
  table: Table,
  given: Schemas['ServingOut'],
  cells: Record<string, string>,
): { card: Schemas['CardDocument']; places: string[] } {
  const scores: Schemas['ScoreDocument'][] = []
  const places: string[] = []
  for (const code of given.order) {
    for (const { key } of columnsOf(table)) {
      const typed = (cells[`${code}|${key}`] ?? '').trim()
      if (!typed) continue
      // what is no number is for the server to say, at its own cell
      scores.push({ code, scale: key, value: Number.isNaN(Number(typed)) ? 0 : Number(typed) })
      places.push(`${code}|${key}`)
    }
  }
  const picked = (cells.pick ?? '').trim()
  const chosen = picked && picked !== '0' ? picked : null
  return {
    card: {
      taster: given.taster, served: given.order, scores, words: [], short: false, left: false, guess: null,
      prefers: table.kind === 'preference' ? chosen : null, odd: table.kind === 'triangle' ? chosen : null,
    },
    places,
  } // prettier-ignore
}

/** What was refused, at the cells it was typed in. */
export function atCells(errors: Record<string, string>, places: string[]): Record<string, string> {
  return Object.fromEntries(
    Object.entries(errors).map(([field, said]) => {
      const at = /^scores\.(\d+)\./.exec(field)?.[1]
      const cell = at === undefined ? undefined : places[Number(at)]
      return [cell ?? (field === 'prefers' || field === 'odd' ? 'pick' : field), said]
    }),
  )
}
