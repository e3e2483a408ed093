import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { Temporal } from 'temporal-polyfill'
import { computed, type Ref } from 'vue'
import { api, call, Refusal, sentenceOf, type Schemas } from '../api/client'
import { useChange } from '../api/change'
import { keep, refresh } from '../api/kept'
import { say } from '../kit/notice'
import { sure } from '../kit/sure'

export type Day = Schemas['DayOut']

/** A cook's day as the server plans it, and what moves it. */
export function useDay(id: Ref<string | undefined>) {
  const queries = useQueryClient()
  const zone = Temporal.Now.timeZoneId()
  const key = computed(() => ['day', id.value])
  const { data: day, error } = useQuery({
    queryKey: key,
    queryFn: () =>
      call(api.GET('/api/cooks/{cook_id}/day', { params: { path: { cook_id: sure(id.value) }, query: { zone } } })),
    enabled: computed(() => !!id.value),
    refetchInterval: 60_000,
  })
  const { data: ways, isFetching: looking } = useQuery({
    queryKey: computed(() => ['day', id.value, 'ways', day.value?.version]),
    queryFn: () =>
      call(
        api.GET('/api/cooks/{cook_id}/day/ways-out', {
          params: { path: { cook_id: sure(id.value) }, query: { zone } },
        }),
      ),
    enabled: computed(() => !!day.value?.day.clashes.length),
  })

  const changing = <Given extends unknown[]>(act: (of: Day, ...given: Given) => Promise<Day>) =>
    useChange(
      'cook in hand',
      async (...given: Given) => {
        if (!day.value) return
        await keep<Day>(queries, key.value, await act(day.value, ...given))
        void refresh(queries, ['home'], ['cooks'], ['cook'])
      },
      {
        refused: async (failure) => {
          if (!(failure instanceof Refusal && failure.problem.status === 409)) return say(sentenceOf(failure))
          await refresh(queries, ['day'])
          say('This cook was changed in another window. Its day stands here as it is now; move it again.')
        },
      },
    )
  const path = (of: Day) => ({ path: { cook_id: of.id }, query: { zone } })
  const move = changing((of, change: { serve_at?: string; people?: number }) =>
    call(api.PUT('/api/cooks/{cook_id}/day', { params: path(of), body: { version: of.version, ...change } })),
  )
  const take = changing((of, way: string[]) =>
    call(api.POST('/api/cooks/{cook_id}/day/way-out', { params: path(of), body: { version: of.version, key: way } })),
  )
  return { day, error, ways, looking, move, take }
}
