/** As much of a file as is sent at once [characters]. */
const MOST = 600_000
const MOST_LINES = 15_000

/** Cut a long file of lines into parts, each with its head and the number of its first row's line. */
export function inParts(text: string, most = MOST, lines = MOST_LINES): { text: string; first_line: number }[] {
  const [head = '', ...rows] = text.replace(/^\uFEFF/, '').split(/\r?\n/)
  const parts: { text: string; first_line: number }[] = []
  let part: string[] = []
  let size = 0
  const close = (next: number) => {
    if (part.length || !parts.length) {
      parts.push({ text: [head, ...part].join('\n'), first_line: next - part.length })
    }
    part = []
    size = 0
  }
  rows.forEach((row, at) => {
    if (part.length && (size + row.length > most || part.length >= lines)) close(at + 2)
    part.push(row)
    size += row.length + 1
  })
  close(rows.length + 2)
  return parts
}
