import { sure } from '../kit/sure'
/** How the salt below the surface is drawn, on one scale for all ways: to this depth [cm], in a picture this large. */
export const DEEP_CM = 2
export const WIDE = 150
export const HIGH = 46

/** What sets the height of all pictures [%]: the salt under the first millimetre, whose surface outruns all else. */
export const topOf = (ways: { depths_cm: number[]; percent: number[] }[]) =>
  Math.max(
    0.5,
    ...ways.flatMap(({ depths_cm, percent }) =>
      percent.filter((_, n) => sure(depths_cm[n]) >= 0.15 && sure(depths_cm[n]) <= DEEP_CM),
    ),
  )

/** The outline of the salt at depths [cm], to fill; nothing where nothing is known. */
export function curve(depths_cm: number[], percents: number[], top: number): string {
  const points = depths_cm.flatMap((cm, n) => {
    const high = HIGH * (1 - Math.min(1, sure(percents[n]) / top))
    return cm <= DEEP_CM * 1.2 ? [`L${((cm / DEEP_CM) * WIDE).toFixed(1)} ${high.toFixed(1)}`] : []
  })
  return points.length ? `M0 ${HIGH}${points.join('')}L${WIDE * 1.2} ${HIGH}Z` : ''
}
