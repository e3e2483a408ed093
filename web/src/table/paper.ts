import type { Schemas } from '../api/client'
import { askedAs } from './scales'
import type { Table } from './useTable'

/** The columns of a paper card: the place in the order, then the scales, as they stand on it. */
export function columnsOf(table: Table): { key: string; title: string; high: number }[] {
  const ranks = table.kind === 'ranking' ? [{ key: 'rank', title: 'Place', high: table.codes.length }] : []
  const asks = table.scales.map((scale) => ({ key: scale.name, title: askedAs(scale.name), high: scale.high }))
  const overall = table.kind === 'scores' && !asks.some((one) => one.key === 'overall')
  return [...ranks, ...(overall ? [{ key: 'overall', title: 'Overall', high: 9 }] : []), ...asks]
}

interface Read {
  card: Schemas['CardDocument']
  errors: Record<string, string>
}

/** A paper card as it was typed in, and what of it is no number that its scale has. */
export function asTyped(table: Table, given: Schemas['ServingOut'], cells: Record<string, string>): Read {
  const errors: Record<string, string> = {}
  const scores: Schemas['ScoreDocument'][] = []
  for (const { key, title, high } of columnsOf(table)) {
    for (const code of given.order) {
      const typed = (cells[`${code}|${key}`] ?? '').trim()
      if (!typed) continue
      const value = Number(typed)
      if (!Number.isInteger(value) || value < 1 || value > high)
        errors[`${code}|${key}`] = `${title} of ${code} goes from 1 to ${high}.`
      else scores.push({ code, scale: key, value })
    }
  }
  const picked = (cells.pick ?? '').trim()
  if (picked && picked !== '0' && !given.order.includes(picked))
    errors.pick = `No plate on this card has the number ${picked}; it has ${given.order.join(', ')}.`
  if (!picked && ['preference', 'triangle'].includes(table.kind)) errors.pick = 'Type the number of the plate.'
  const chosen = picked && picked !== '0' ? picked : null
  return {
    card: {
      taster: given.taster, served: given.order, scores, words: [], short: false, left: false, guess: null,
      prefers: table.kind === 'preference' ? chosen : null, odd: table.kind === 'triangle' ? chosen : null,
    },
    errors,
  } // prettier-ignore
}
