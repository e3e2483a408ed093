import type { Schemas } from '../api/client'
import { duration } from '../kit/units'

type Piece = Schemas['BoardPieceOut']

export interface Show {
  dose: (grams: number) => string
  mass: (grams: number) => string
  volume: (ml: number) => string
  temperature: (celsius: number) => string
}

const names: Record<string, string> = {
  mix: 'Mix',
  aside: 'Set aside for later',
  inject: 'Inject',
  bind: 'Binder on',
  coat: 'Coat',
  bag: 'In the bag',
  wipe: 'Wipe off',
  salt: 'Salt',
  on: 'On the fire',
  pot: 'Into the liquid',
  again: 'Inject again',
  spritz: 'Spritz',
  baste: 'Baste',
  wrap: 'Wrap',
  glaze: 'Glaze',
  catch: 'Take the drippings',
  rest: 'Rest',
  stir: 'Stir in',
  finish: 'Finish',
  dress: 'At the board',
  plate: 'Plate',
  pass: 'At the table',
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

type Step = Piece['steps'][number]

/** What a step is about, from what the piece comes to. */
export function stepDetail(step: Step, piece: Piece, show: Show): string {
  const { kind, layer: at } = step
  const lasts = duration(step.lasts_s)
  const layer = at === null ? undefined : piece.reading?.layers[at]
  const typed = at === null ? undefined : piece.typed.layers[at]
  const amount = layer && said(layer.dose.value, layer.dose.unit, show)
  const held = `hold ${lasts}${where[typed?.place || ''] ?? ''}`
  const join = (...parts: (string | null | undefined | false)[]) => parts.filter(Boolean).join(', ')
  switch (kind) {
    case 'mix':
    case 'aside':
      return mixed(step.mixes, piece, show)
    case 'inject':
      return join(amount, layer?.injection && `${layer.injection.sites_in_all} sites`, held)
    case 'coat':
    case 'bag':
      return join(amount, held)
    case 'wipe':
      return 'so that smoke and crust take'
    case 'salt':
      return layer ? join(show.mass(layer.dose.value), layer.spoons.text, held) : ''
    case 'bind':
    case 'stir':
    case 'finish':
    case 'dress':
    case 'pass':
      return join(amount)
    case 'spritz':
    case 'baste':
      return join(amount, Number(typed?.times) > 1 && `${typed?.times} times from here on`)
    case 'pot':
      return join(amount, `${lasts} in it`)
    case 'again':
    case 'wrap':
    case 'glaze':
      return join(amount, `${lasts} before it comes off`)
    case 'on':
    case 'rest':
      return lasts
    default:
      return ''
  }
}

const said = (value: number, unit: string, show: Show) => (unit === 'ml' ? show.volume(value) : show.dose(value))

/** Which blends are mixed at once, how much of each, and for which pieces where it is not for this one alone. */
function mixed(mixes: Step['mixes'], piece: Piece, show: Show): string {
  const all = mixes.map((one) => {
    const amount = one.amount === null ? 'some' : said(one.amount, one.unit, show)
    const alone = one.letters.length === 1 && one.letters[0] === piece.typed.letter
    return `${amount} of ${one.name}${alone ? '' : ` for ${one.letters.join(' and ')}`}`
  })
  const aside = mixes.reduce((sum, one) => sum + one.aside_g, 0)
  return aside > 0 ? `${all.join(', ')}; and ${show.mass(aside)} more to set aside first` : all.join(', ')
}
