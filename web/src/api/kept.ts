import type { QueryClient, QueryKey } from '@tanstack/vue-query'

/**
 * Ask anew for what the server may tell differently now. What is on its way was asked for before the change: it is
 * called off first, as else a first answer that is late would pass for the one asked for after it. What nobody looks at
 * is forgotten, so that a list is not shown with versions from before the change.
 */
export async function refresh(queries: QueryClient, ...keys: QueryKey[]): Promise<void> {
  await Promise.all(keys.map((queryKey) => queries.cancelQueries({ queryKey })))
  for (const queryKey of keys) queries.removeQueries({ queryKey, type: 'inactive' })
  await Promise.all(keys.map((queryKey) => queries.invalidateQueries({ queryKey })))
}

/** Keep what the server has just told; an answer to an older question that is on its way does not undo it. */
export async function keep<Told>(
  queries: QueryClient,
  queryKey: QueryKey,
  told: Told | ((before: Told | undefined) => Told | undefined),
): Promise<void> {
  await queries.cancelQueries({ queryKey })
  queries.setQueryData<Told>(queryKey, told)
}
