/** Grains that fall where they fall on an axis and lie on each other: each as high as those already under it. */
export function heaped(at: number[], radius: number): { x: number; y: number }[] {
  const lying: { x: number; y: number }[] = []
  for (const x of [...at].sort((a, b) => a - b)) {
    // the lowest place at which it touches none of those that lie there
    let y = radius
    for (let moved = true; moved;) {
      moved = false
      for (const other of lying) {
        const across = x - other.x
        if (Math.hypot(across, y - other.y) < 2 * radius - 1e-6) {
          y = other.y + Math.sqrt(4 * radius * radius - across * across)
          moved = true
        }
      }
    }
    lying.push({ x, y })
  }
  return lying
}
