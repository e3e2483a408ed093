/** Takes a drawing away as a file: with its colours and letters as they are on the screen. */
const STYLED = ['fill', 'stroke', 'stroke-width', 'stroke-dasharray', 'font-size', 'font-weight', 'text-anchor', 'opacity'] // prettier-ignore

function standing(svg: SVGSVGElement): string {
  const copy = svg.cloneNode(true) as SVGSVGElement
  const mine = [svg, ...svg.querySelectorAll<SVGElement>('*')]
  const theirs = [copy, ...copy.querySelectorAll<SVGElement>('*')]
  mine.forEach((one, at) => {
    const style = getComputedStyle(one)
    const other = theirs[at]
    for (const name of STYLED) other?.style.setProperty(name, style.getPropertyValue(name))
    other?.removeAttribute('class')
  })
  const { width, height } = svg.getBoundingClientRect()
  copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg')
  copy.setAttribute('width', String(width))
  copy.setAttribute('height', String(height))
  copy.style.setProperty('font-family', 'sans-serif')
  copy.style.setProperty('background', getComputedStyle(document.body).backgroundColor)
  return new XMLSerializer().serializeToString(copy)
}

function hand(blob: Blob, name: string) {
  const link = document.createElement('a')
  link.href = URL.createObjectURL(blob)
  link.download = name
  link.click()
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000)
}

export function takeSvg(svg: SVGSVGElement, name: string) {
  hand(new Blob([standing(svg)], { type: 'image/svg+xml' }), `${name}.svg`)
}

/** The same as dots, twice as fine as it is drawn. */
export async function takePng(svg: SVGSVGElement, name: string) {
  const { width, height } = svg.getBoundingClientRect()
  const image = new Image()
  image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(standing(svg))}`
  await image.decode()
  const canvas = document.createElement('canvas')
  canvas.width = width * 2
  canvas.height = height * 2
  const pen = canvas.getContext('2d')
  if (!pen) return
  const ground = getComputedStyle(svg.closest('.plate') ?? document.body).backgroundColor
  pen.fillStyle = ground
  pen.fillRect(0, 0, canvas.width, canvas.height)
  pen.drawImage(image, 0, 0, canvas.width, canvas.height)
  const blob = await new Promise<Blob | null>((done) => canvas.toBlob(done, 'image/png'))
  if (blob) hand(blob, `${name}.png`)
}
