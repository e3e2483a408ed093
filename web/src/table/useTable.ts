import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, type Ref } from 'vue'
import { api, call, Refusal, sentenceOf, type Schemas } from '../api/client'
import { keep, refresh } from '../api/kept'
import { say } from '../kit/notice'

export type Table = Schemas['TableOut']
export type Design = Schemas['DesignOut']

/** How often a table that is looked at asks what came in from other phones. */
const ASKS_EVERY_MS = 6000

/** The trial that is meant: the one by its key, else that of the cook in hand. */
export function useTable(id: Ref<string | undefined>) {
  const queries = useQueryClient()
  const key = computed(() => ['table', id.value ?? 'in hand'])
  const {
    data: table,
    error,
    refetch,
  } = useQuery({
    queryKey: key,
    queryFn: async (): Promise<Table | null> => {
      const cooks = id.value ? [] : await call(api.GET('/api/cooks'))
      const trial = id.value ?? cooks.find((row) => row.in_hand)?.trial?.id
      return trial ? call(api.GET('/api/trials/{trial_id}', { params: { path: { trial_id: trial } } })) : null
    },
    gcTime: 0,
    refetchInterval: ASKS_EVERY_MS,
  })
  async function show(now: Table) {
    await keep(queries, key.value, now)
    await refresh(queries, ['home'], ['cooks'], ['design'], ['fair'], ['verdict'])
  }
  return { table, error, show, refetch }
}

/** A trial's design, and how it is changed: what another window changed first is shown instead. */
export function useDesign(id: Ref<string | undefined>) {
  const queries = useQueryClient()
  const key = computed(() => ['design', id.value])
  const { data: design } = useQuery({
    queryKey: key,
    queryFn: () => call(api.GET('/api/trials/{trial_id}/design', { params: { path: { trial_id: id.value ?? '' } } })),
    enabled: computed(() => !!id.value),
  })
  async function show(now: Design) {
    await keep(queries, key.value, now)
    await refresh(queries, ['fair'], ['table'], ['home'], ['cooks'])
  }
  async function refused(failure: unknown) {
    if (failure instanceof Refusal && failure.problem.theirs) {
      await show(failure.problem.theirs as unknown as Design)
      say('This trial was changed in another window. It stands here as it is now; do that again.')
      return
    }
    say(sentenceOf(failure))
  }
  return { design, show, refused }
}

/** Whether a trial is a fair test, by all that is recorded of its pieces. */
export function useFair(id: Ref<string | undefined>) {
  const { data: fair } = useQuery({
    queryKey: computed(() => ['fair', id.value]),
    queryFn: () => call(api.GET('/api/trials/{trial_id}/fair', { params: { path: { trial_id: id.value ?? '' } } })),
    enabled: computed(() => !!id.value),
  })
  return fair
}
