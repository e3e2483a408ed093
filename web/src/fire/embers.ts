/** Beds of embers by where they are said to lie: middle, and half as wide and high; shares of the grate and pixels. */
const BEDS: Record<string, [number, number, number, number][]> = {
  'on the right': [[0.8, 0.5, 46, 112]],
  'on the left': [[0.2, 0.5, 46, 112]],
  'in the middle': [[0.5, 0.5, 56, 56]],
  'on both sides': [
    [0.87, 0.5, 30, 100],
    [0.13, 0.5, 30, 100],
  ],
  'all over': [[0.5, 0.5, 128, 128]],
}

/** Glowing coals where the embers lie, the same ones each time; none for a fire without. */
export const embersOf = (lie: string, size: number) =>
  (BEDS[lie] ?? []).flatMap(([cx, cy, wide, high], bed) => {
    const many = Math.round((wide * high) / 110)
    return Array.from({ length: many }, (_, n) => {
      const turn = (n * 2.39996) % (2 * Math.PI)
      const far = Math.sqrt((n + 0.5) / many)
      return {
        key: `${bed}.${n}`,
        x: size * cx + Math.cos(turn) * far * wide,
        y: size * cy + Math.sin(turn) * far * high,
        r: 5 + ((n * 7) % 6),
        bright: n % 3,
      }
    })
  })
