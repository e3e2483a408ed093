import type { Schemas } from '../api/client'

type Arm = Schemas['ArmOut']

export interface Show {
  dose: (grams: number) => string
  mass: (grams: number) => string
  volume: (ml: number) => string
  temperature: (celsius: number) => string
}

const names: Record<string, string> = {
  mix: 'Mix',
  coat: 'Coat',
  bag: 'In the bag',
  wipe: 'Wipe off',
  salt: 'Salt',
  on: 'On the fire',
  rest: 'Rest',
  plate: 'Plate',
}

export const stepName = (kind: string) => names[kind] ?? kind

/** What a step is about, from what the arm comes to. */
export function stepDetail(kind: string, arm: Arm, lasts: string, show: Show): string {
  const layers = arm.reading?.layers ?? []
  const rub = layers.find((layer) => layer.kind === 'rub')
  const bath = layers.find((layer) => layer.kind === 'marinade')
  const salt = layers.find((layer) => layer.kind === 'salt')
  const seasoning = arm.layers.find((layer) => layer.kind !== 'salt')
  switch (kind) {
    case 'mix':
      return bath
        ? `${show.volume(bath.dose.value)} of ${seasoning?.blend_name}; set a reserve aside first`
        : `${rub ? show.dose(rub.dose.value) : 'some'} of ${seasoning?.blend_name}`
    case 'coat':
      return `${rub ? `${show.dose(rub.dose.value)}, ` : ''}hold ${lasts}`
    case 'bag':
      return `${bath ? `${show.volume(bath.dose.value)}, ` : ''}hold ${lasts} cold`
    case 'wipe':
      return 'so that smoke and crust take'
    case 'salt':
      return salt ? `${show.mass(salt.dose.value)}, ${salt.spoons.text}` : ''
    case 'on':
    case 'rest':
      return lasts
    default:
      return ''
  }
}
