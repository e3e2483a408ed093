const INK = [30, 60, 140]
const DARKEST = 24

/**
 * A picture of how much salt a face holds, of rows of figures from 0 to 9 with a dot where nothing is: a point for each
 * cell, which the browser smooths as it is drawn larger. Empty where there is nothing to draw.
 */
export function shadeOf(rows: string[]): string {
  const cells = document.createElement('canvas')
  ;[cells.width, cells.height] = [rows[0]?.length ?? 0, rows.length]
  const pen = rows.length ? cells.getContext('2d') : null
  if (!pen) return ''
  const points = pen.createImageData(cells.width, cells.height)
  rows
    .flatMap((row) => [...row])
    .forEach((figure, n) => points.data.set([...INK, figure === '.' ? 0 : Number(figure) * DARKEST], n * 4))
  pen.putImageData(points, 0, 0)
  return cells.toDataURL()
}
