import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, call } from '../api/client'

/** The coat this household really puts on a cut with such a surface, learned from weighing back. */
export function useOwnCoat(cut: () => string, surface: () => string, kind: () => string) {
  const key = computed(() => ({ cut: cut(), surface: surface(), kind: kind() === 'paste' ? 'paste' : 'rub' }) as const)
  const { data } = useQuery({
    queryKey: ['own coat', key],
    queryFn: () => call(api.GET('/api/cooks/coat/own-weight', { params: { query: key.value } })),
  })
  return data
}
