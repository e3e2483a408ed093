import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, call, type Schemas } from './client'

export type Grind = Schemas['GrindOut']
export type Cut = Schemas['CutOut']

/** The catalogue, fetched once, with look-ups by key. */
export function useCatalogue() {
  const { data } = useQuery({
    queryKey: ['catalogue'],
    queryFn: () => call(api.GET('/api/shelf/catalogue')),
    staleTime: Infinity,
  })
  const grinds = computed(() => new Map(data.value?.grinds.map((grind) => [grind.key, grind])))
  const cuts = computed(() => new Map(data.value?.cuts.map((cut) => [cut.key, cut])))
  return { catalogue: data, grinds, cuts }
}

/** What a cut is found by: its name, its animal and what else it is called. */
export const cutWords = (cut: Cut) => [cut.name, cut.animal, ...cut.other_names].join(' ')

/** The grind in a word, where it says something that the name does not: "cracked" of black pepper, nothing of honey. */
export function grindWord(grind: Grind): string {
  return ['liquid', 'own'].includes(grind.grind) || grind.name.toLowerCase().includes(grind.grind) ? '' : grind.grind
}

/** "Black pepper, cracked", and just "Honey" where the grind says nothing. */
export function grindName(grind: Grind): string {
  return grindWord(grind) ? `${grind.name}, ${grindWord(grind)}` : grind.name
}
