/** Takes drawings away as a file: with their colours and letters as they are on the screen, one under the other. */
const STYLED = ['fill', 'stroke', 'stroke-width', 'stroke-dasharray', 'font-size', 'font-weight', 'text-anchor', 'opacity'] // prettier-ignore
const CAPTION = 24
const SVG = 'http://www.w3.org/2000/svg'

interface Taken {
  text: string
  width: number
  height: number
}

function standing(drawings: SVGSVGElement[]): Taken {
  const page = document.createElementNS(SVG, 'svg')
  let height = 0
  let width = 0
  for (const drawing of drawings) {
    const said = drawing.dataset['caption']
    if (said) {
      const caption = document.createElementNS(SVG, 'text')
      caption.textContent = said
      caption.setAttribute('x', '4')
      caption.setAttribute('y', String(height + 17))
      caption.setAttribute('style', `font-size: 14px; fill: ${getComputedStyle(drawing).color}`)
      page.append(caption)
      height += CAPTION
    }
    const copy = drawing.cloneNode(true) as SVGSVGElement
    const mine = [drawing, ...drawing.querySelectorAll<SVGElement>('*')]
    const theirs = [copy, ...copy.querySelectorAll<SVGElement>('*')]
    mine.forEach((one, at) => {
      const style = getComputedStyle(one)
      const other = theirs[at]
      for (const name of STYLED) other?.style.setProperty(name, style.getPropertyValue(name))
      other?.removeAttribute('class')
    })
    const box = drawing.getBoundingClientRect()
    copy.setAttribute('y', String(height))
    copy.setAttribute('width', String(box.width))
    copy.setAttribute('height', String(box.height))
    page.append(copy)
    height += box.height
    width = Math.max(width, box.width, said ? 8 * said.length : 0)
  }
  page.setAttribute('xmlns', SVG)
  page.setAttribute('width', String(width))
  page.setAttribute('height', String(height))
  page.setAttribute('viewBox', `0 0 ${width} ${height}`)
  const ground = getComputedStyle(drawings[0]?.closest('.plate') ?? document.body).backgroundColor
  page.setAttribute('style', `font-family: sans-serif; background: ${ground}`)
  return { text: new XMLSerializer().serializeToString(page), width, height }
}

function hand(blob: Blob, name: string) {
  const link = document.createElement('a')
  link.href = URL.createObjectURL(blob)
  link.download = name
  link.click()
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000)
}

export function takeSvg(drawings: SVGSVGElement[], name: string) {
  hand(new Blob([standing(drawings).text], { type: 'image/svg+xml' }), `${name}.svg`)
}

/** The same as dots, twice as fine as it is drawn. */
export async function takePng(drawings: SVGSVGElement[], name: string) {
  const { text, width, height } = standing(drawings)
  const image = new Image()
  image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(text)}`
  await image.decode()
  const canvas = document.createElement('canvas')
  canvas.width = width * 2
  canvas.height = height * 2
  const pen = canvas.getContext('2d')
  if (!pen) return
  pen.fillStyle = getComputedStyle(drawings[0]?.closest('.plate') ?? document.body).backgroundColor
  pen.fillRect(0, 0, canvas.width, canvas.height)
  pen.drawImage(image, 0, 0, canvas.width, canvas.height)
  const blob = await new Promise<Blob | null>((done) => canvas.toBlob(done, 'image/png'))
  if (blob) hand(blob, `${name}.png`)
}
