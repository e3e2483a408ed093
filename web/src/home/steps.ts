import type { Schemas } from '../api/client'

type Piece = Schemas['BoardPieceOut']

export interface Show {
  dose: (grams: number) => string
  mass: (grams: number) => string
  volume: (ml: number) => string
  temperature: (celsius: number) => string
}

const names: Record<string, string> = {
  mix: 'Mix',
  inject: 'Inject',
  coat: 'Coat',
  bag: 'In the bag',
  wipe: 'Wipe off',
  salt: 'Salt',
  on: 'On the fire',
  rest: 'Rest',
  plate: 'Plate',
}

/** Where a step's layer is held, as it ends a line. */
const where: Record<string, string> = {
  fridge: ' cold',
  'cool box': ' in a cool box',
  bench: ' on the bench',
  outside: ' outside',
  'warm water': ' in warm water',
}

export const stepName = (kind: string) => names[kind] ?? kind

/** What a step is about, from what the piece comes to; `at` is the place of its layer. */
export function stepDetail(kind: string, at: number | null, piece: Piece, lasts: string, show: Show): string {
  const layers = piece.reading?.layers ?? []
  const layer = at === null ? undefined : layers[at]
  const amount = layer && (layer.dose.unit === 'ml' ? show.volume(layer.dose.value) : show.dose(layer.dose.value))
  const held = `hold ${lasts}${where[(at === null ? '' : piece.typed.layers[at]?.place) || ''] ?? ''}`
  switch (kind) {
    case 'mix':
      return mixed(piece, show)
    case 'inject':
      return `${amount ? `${amount}, ` : ''}${layer?.injection ? `${layer.injection.sites_in_all} sites, ` : ''}${held}`
    case 'coat':
    case 'bag':
      return `${amount ? `${amount}, ` : ''}${held}`
    case 'wipe':
      return 'so that smoke and crust take'
    case 'salt':
      return layer ? `${show.mass(layer.dose.value)}, ${layer.spoons.text}, ${held}` : ''
    case 'on':
    case 'rest':
      return lasts
    default:
      return ''
  }
}

/** Which blends are mixed for an piece, and how much of each. */
function mixed(piece: Piece, show: Show): string {
  const said = piece.marks.flatMap((mark, n) => {
    const found = piece.reading?.layers[n]
    if (!mark.blend_name) return []
    const amount = !found
      ? 'some'
      : found.dose.unit === 'ml'
        ? show.volume(found.dose.value)
        : show.dose(found.dose.value)
    return [`${amount} of ${mark.blend_name}`]
  })
  const bath = piece.typed.layers.findIndex((layer) => layer.kind === 'marinade')
  const aside = piece.reading?.layers[bath]?.reserve_g ?? 0
  const first = aside > 0 ? `and ${show.mass(aside)} more to set aside first` : 'set a reserve aside first'
  return `${said.join(', ')}${bath >= 0 ? `; ${first}` : ''}`
}
