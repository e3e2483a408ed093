import type { Schemas } from '../api/client'
import { meanColour } from '../draw/grains'
import type { Grind } from '../api/catalogue'
import { sure } from '../kit/sure'

type Layer = Schemas['LayerDocument']

const COLOURS: Record<string, string> = {
  'pre-salt': '#b9c6d2', injection: '#6f9fc0', 'second injection': '#4f7fa4', marinade: '#d9a441', binder: '#c79a2a', spritz: '#a9b56a',
  baste: '#c98a4b', wrap: '#e3c25f', 'cooking liquid': '#a47148', drippings: '#8a5a3c', 'finishing salt': '#93a5b5', 'stirred in': '#b4563a',
  'at the board': '#a8442c', 'at the table': '#7d6a3a',
} // prettier-ignore

/** A layer's own colour: its blend's where it has one of spices, else its kind's. */
export function layerColour(layer: Layer, blends: Schemas['BlendRow'][], grinds: Map<string, Grind>): string {
  const blend = blends.find((row) => row.id === layer.blend_id)
  if (!blend || !['rub', 'paste', 'glaze'].includes(layer.kind)) return COLOURS[layer.kind] ?? '#8e2f1c'
  const mixture = blend.grinds.flatMap((key, n) => {
    const of = grinds.get(key)
    return of ? [{ of, share: sure(blend.shares[n]) }] : []
  })
  return mixture.length ? meanColour(mixture) : '#8e2f1c'
}

/** What a layer is called: its blend or ingredient, or its kind. */
export function layerName(layer: Layer, blends: Schemas['BlendRow'][], grinds: Map<string, Grind>): string {
  const blend = blends.find((row) => row.id === layer.blend_id)
  const grind = grinds.get(layer.grind ?? '')
  const unmixed = { drippings: 'Drippings', 'cooking liquid': 'What is left of the bath' }[layer.kind as string]
  return blend?.name ?? grind?.name ?? unmixed ?? `${layer.kind}, nothing chosen yet`
}

/** Whether it is a cooking liquid of nothing but what is left of a bath. */
export const ofTheBath = (layer: Layer) => layer.kind === 'cooking liquid' && !layer.blend_id && !layer.grind
