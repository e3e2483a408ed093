import { useQuery } from '@tanstack/vue-query'
import { computed, inject, watch, type InjectionKey } from 'vue'
import { api, call, Refusal, type Schemas } from '../api/client'
import { useChange } from '../api/change'
import { useQuestion } from '../api/question'
import { coatHere, pieceHere } from '../coat/useCoat'

export type Phase = Schemas['PhaseDocument']

const plain = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T

/** What the fire does to the open piece: its phases, what they come to, and what it can begin from. */
export function useHeat() {
  const coat = coatHere()
  const piece = pieceHere()
  const phases = computed(() => piece.value.phases ?? [])
  const cut = computed(() => piece.value.cut)
  const { data: known } = useQuery({
    queryKey: ['heat of cut', cut],
    queryFn: () => call(api.GET('/api/cooks/heat/cut', { params: { query: { cut: cut.value } } })),
    placeholderData: (before) => before,
  })
  const read = useQuestion<Schemas['HeatReading']>({ after: 60 })
  const otherwise = useQuestion<Schemas['Otherwise'][]>({ after: 400 })
  const asked = computed(() =>
    JSON.stringify({ piece: { ...piece.value, name: '-', tasted: false }, appetite: coat.doc.value?.appetite }),
  )
  watch(
    asked,
    (body) => {
      if (!phases.value.length) {
        read.clear()
        return otherwise.clear()
      }
      const sent = JSON.parse(body) as Schemas['HeatDocument']
      void read.ask((signal) => call(api.POST('/api/cooks/heat/read', { body: sent, signal })))
      void otherwise.ask((signal) => call(api.POST('/api/cooks/heat/what-if', { body: sent, signal })))
    },
    { immediate: true },
  )
  const around = computed(() => new Map((known.value?.surrounds ?? []).map((one) => [one.key, one])))

  function put(made: Phase[]) {
    coat.history.mark()
    piece.value.phases = plain(made)
  }
  /** One more, as is usual for what it is, where that goes. */
  const add = useChange('heat', async (surround: Phase['surround']) => {
    const surrounds = phases.value.map((phase) => phase.surround)
    const made = await call(api.POST('/api/cooks/heat/phase', { body: { surround, surrounds } }))
    put(phases.value.toSpliced(made.place, 0, made.phase))
  })
  const remove = (at: number) => put(phases.value.filter((_, n) => n !== at))
  function move(at: number, to: number) {
    if (to < 0 || to >= phases.value.length) return
    const made = [...phases.value]
    made.splice(to, 0, ...made.splice(at, 1))
    put(made)
  }
  /** What is wrong with a phase, by its field: as the coat says, else as heat does. */
  const errorsOf = (at: number) => {
    const start = `phases.${at}.`
    const within = (errors: Record<string, string>, prefix: string) =>
      Object.entries(errors).flatMap(([field, says]) =>
        field.startsWith(prefix) ? [[field.slice(prefix.length), says] as const] : [],
      )
    return Object.fromEntries([
      ...within(read.errors.value, `piece.${start}`),
      ...within(coat.errorsOf(coat.current.value), start),
    ]) as Record<string, string>
  }
  /** Whether something of the piece must be mended before it can be reckoned. */
  const stopped = computed(() => read.failure.value instanceof Refusal)
  const old = computed(() => Object.keys(read.errors.value).length > 0)
  return { piece, phases, known, around, answer: read.answer, stopped, old, otherwise: otherwise.answer, put, add, remove, move, errorsOf } // prettier-ignore
}

export type Heat = ReturnType<typeof useHeat>
export const HEAT: InjectionKey<Heat> = Symbol('heat')
export function heatHere(): Heat {
  const heat = inject(HEAT)
  if (!heat) throw new Error('No heat is provided here.')
  return heat
}
