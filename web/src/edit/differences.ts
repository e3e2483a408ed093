export interface DifferenceRow {
  field: string
  mine: string
  theirs: string
}

const say = (value: unknown): string =>
  typeof value === 'object' && value
    ? '…'
    : `${(value as string | number | boolean | null | undefined) ?? ''}` || 'nothing'

/** Lists where two documents differ, field by field, for a person who has to choose between them. */
export function differences(mine: unknown, theirs: unknown, at = ''): DifferenceRow[] {
  if (JSON.stringify(mine) === JSON.stringify(theirs)) return []
  const both = [mine, theirs]
  if (both.every((side) => typeof side === 'object' && side !== null)) {
    const a = mine as Record<string, unknown>
    const b = theirs as Record<string, unknown>
    return [...new Set([...Object.keys(a), ...Object.keys(b)])].flatMap((key) => {
      const step = /^\d+$/.test(key) ? String(Number(key) + 1) : key.replaceAll('_', ' ')
      return differences(a[key], b[key], at ? `${at} ${step}` : step)
    })
  }
  const inWords = (side: unknown) =>
    typeof side === 'object' && side !== null ? Object.values(side).map(say).join(', ') : say(side)
  return [{ field: at, mine: inWords(mine), theirs: inWords(theirs) }]
}
