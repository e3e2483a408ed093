import { computed } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import type { Schemas } from '../api/client'

export type Across = Schemas['AcrossOut']
export type CutRow = Schemas['CutRow']
export type Cell = Schemas['CellOut']
export type Asked = Partial<Schemas['Question']>

/** A question of all of the book. */
export const ALL = { who: 'table', cuts: '', tasters: '', season: '', cooker: '', school: '', trait: '' } as const

const KEYS = ['kind', 'first', 'second', 'who', 'cuts', 'tasters', 'season', 'cooker', 'school', 'trait'] as const

/** The question as it stands in the address, so that it can be gone back to and shared; and how to ask another. */
export function useQuestion() {
  const route = useRoute()
  const router = useRouter()
  const asked = computed<Asked>(() => {
    const found: Record<string, string> = {}
    for (const key of KEYS) {
      const value = route.query[key]
      if (typeof value === 'string' && value) found[key] = value
    }
    return found
  })
  const ask = (changed: Asked) =>
    router.replace({ query: Object.fromEntries(Object.entries({ ...asked.value, ...changed }).filter(([, v]) => v)) })
  const to = (path: string) => ({ path, query: asked.value })
  return { asked, ask, to }
}

/** A side's name at the beginning of a sentence. */
export const upper = (words: string) => words.charAt(0).toUpperCase() + words.slice(1)

export const counted = (count: number, what: string) => `${count} ${what}${count === 1 ? '' : 's'}`

/** The address of a file of a question. */
export const fileOf = (name: string, asked: Asked) => `/api/verdicts/${name}?${new URLSearchParams(asked)}`
