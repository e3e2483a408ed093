import { onScopeDispose } from 'vue'

/**
 * Asks again while an answer is still on its way. Only the newest question counts: the request before it is called off,
 * and what comes of it all the same, an answer or a failure, is null. The order answers arrive in does not matter then.
 */
export function useNewest() {
  let newest: AbortController | null = null

  /** Call off what is on its way, as what was asked no longer holds. */
  function drop() {
    newest?.abort()
    newest = null
  }

  async function ask<Answer>(
    request: (signal: AbortSignal) => Promise<Answer>,
  ): Promise<{ answer: Answer } | { failure: unknown } | null> {
    newest?.abort()
    const mine = (newest = new AbortController())
    try {
      const answer = await request(mine.signal)
      return mine === newest ? { answer } : null
    } catch (failure) {
      return mine === newest ? { failure } : null
    }
  }

  onScopeDispose(drop)
  return { ask, drop }
}
