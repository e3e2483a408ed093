import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, type Ref } from 'vue'
import { api, call, isConflict, sentenceOf, type Schemas } from '../api/client'
import { useChange } from '../api/change'
import { keep, refresh } from '../api/kept'
import { say } from '../kit/notice'
import { sure } from '../kit/sure'
import { askedUnder } from './asked'

export type Day = Schemas['DayOut']
export type DayChange = Omit<Schemas['DaySave'], 'version'>

/** The zone of this screen, as long as the household keeps none. */
export const zone = Intl.DateTimeFormat().resolvedOptions().timeZone

/** Whose a lane is, where there is little room: a piece's letter, a side's name, nothing for the way. */
export function shortly(day: Day, letter: string): string {
  const side = day.pieces.find((piece) => piece.letter === letter && piece.side)
  return letter === 'way' || letter === 'buy' ? '' : (side?.name ?? letter)
}

/** Whose a step is, as it is told before it: a piece by its letter, a side by its name, the way by nothing. */
export function whose(day: Day, letter: string): string {
  const name = shortly(day, letter)
  return name && `${name}: `
}

/** A cook's day as the server plans it. */
export function useDayOf(id: Ref<string | undefined>) {
  const key = computed(() => ['day', id.value])
  const { data: day, error } = useQuery({
    queryKey: key,
    queryFn: () =>
      call(api.GET('/api/cooks/{cook_id}/day', { params: { path: { cook_id: sure(id.value) }, query: { zone } } })),
    enabled: computed(() => !!id.value),
    refetchInterval: 60_000,
  })
  return { key, day, error }
}

/** A cook's day, and what moves it. */
export function useDay(id: Ref<string | undefined>) {
  const queries = useQueryClient()
  const { key, day, error } = useDayOf(id)
  const waysKey = computed(() => ['day', id.value, 'ways', day.value?.version])
  const {
    data: ways,
    isFetching: looking,
    refetch: look,
  } = useQuery({
    queryKey: waysKey,
    queryFn: ({ signal }) =>
      call(
        api.GET('/api/cooks/{cook_id}/day/ways-out', {
          params: { path: { cook_id: sure(id.value) }, query: { zone, asked: askedUnder(signal) } },
          signal,
        }),
      ),
    enabled: computed(() => !!day.value?.day.clashes.length),
  })

  const stop = () => queries.cancelQueries({ queryKey: waysKey.value })

  async function kept(told: Day) {
    await keep<Day>(queries, key.value, told)
    void refresh(queries, ['home'], ['cooks'], ['cook'], ['totals'], ['eaters'])
  }
  const changing = <Given extends unknown[]>(act: (of: Day, ...given: Given) => Promise<Day>) =>
    useChange(
      'cook in hand',
      async (...given: Given) => {
        if (day.value) await kept(await act(day.value, ...given))
      },
      {
        refused: async (failure) => {
          if (!isConflict(failure)) return say(sentenceOf(failure))
          await refresh(queries, ['day'])
          say('This cook was changed in another window. Its day stands here as it is now; move it again.')
        },
      },
    )
  const path = (of: Day) => ({ path: { cook_id: of.id }, query: { zone } })
  const put = (of: Day, change: DayChange) =>
    call(api.PUT('/api/cooks/{cook_id}/day', { params: path(of), body: { version: of.version, ...change } }))
  const move = changing(put)
  /** Save a change of which every field that cannot be read is said by the one who asked; one after the other. */
  const { mutateAsync: save } = useMutation({
    scope: { id: 'cook in hand' },
    mutationFn: async (change: DayChange) => {
      if (day.value) await kept(await put(day.value, change))
    },
  })
  const take = changing((of, way: string[]) =>
    call(api.POST('/api/cooks/{cook_id}/day/way-out', { params: path(of), body: { version: of.version, key: way } })),
  )
  const tick = changing((of, step: { letter: string; key: string; done: boolean }) =>
    call(api.POST('/api/cooks/{cook_id}/day/tick', { params: path(of), body: { version: of.version, ...step } })),
  )
  const keepPlan = changing((of, isKept: boolean) =>
    call(api.POST('/api/cooks/{cook_id}/day/keep', { params: path(of), body: { version: of.version, kept: isKept } })),
  )
  const beginNow = changing((of, way: Schemas['StartNow']) =>
    call(
      api.POST('/api/cooks/{cook_id}/day/start-now', {
        params: path(of),
        body: { version: of.version, key: way.key as 'as set', serve_at: way.serve_at },
      }),
    ),
  )
  return { day, error, ways, looking, look, stop, move, save, take, tick, keepPlan, beginNow }
}
