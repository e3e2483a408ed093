import createClient from 'openapi-fetch'
import { sendKeyed } from './keys'
import { inTrouble } from './server'
import type { components, paths } from './schema'

export type Schemas = components['schemas']
export type Problem = Schemas['Problem']

export const api = createClient<paths>({ baseUrl: '/', fetch: sendKeyed })

/** The server answered with a problem document. */
export class Refusal extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail)
  }
}

/** Whether another window changed it first; what was tasted is refused as well, and says so at a field. */
export const isConflict = (failure: unknown): boolean =>
  failure instanceof Refusal && failure.problem.status === 409 && !failure.problem.errors?.length

/** The server could not be reached at all. */
export class Unreachable extends Error {
  constructor() {
    super('Ravska’s server does not answer.')
  }
}

type Answer<T> = { data?: T; error?: unknown; response: Response }

/** Return the data of a call, or throw `Refusal` or `Unreachable`. */
export async function call<T>(pending: Promise<Answer<T>>): Promise<T> {
  let answer: Answer<T>
  try {
    answer = await pending
  } catch (failure) {
    if (failure instanceof DOMException && failure.name === 'AbortError') throw failure
    inTrouble()
    throw new Unreachable()
  }
  if (answer.data !== undefined && answer.response.ok) return answer.data
  const problem = answer.error as Problem | undefined
  if (problem && typeof problem === 'object' && 'detail' in problem) {
    if (problem.status === 503) inTrouble({ title: problem.title, says: [problem.detail] })
    throw new Refusal(problem)
  }
  if (answer.response.status >= 502) {
    inTrouble()
    throw new Unreachable()
  }
  throw new Refusal({
    type: 'about:blank',
    title: 'No answer',
    status: answer.response.status,
    detail: 'The server gave no readable answer. Try again in a moment.',
    errors: [],
  })
}

/** Return what a refusal says of each field, or nothing for a failure that is none. */
export function byField(failure: unknown): Record<string, string> {
  const errors = failure instanceof Refusal ? failure.problem.errors : []
  return Object.fromEntries((errors ?? []).map((error) => [error.field, error.sentence]))
}

/** Return the sentences of one part of what was sent, by their field within it: `start` is `arms.0.` for its name. */
export function within(errors: Record<string, string>, start: string): Record<string, string> {
  const mine = Object.entries(errors).filter(([field]) => field.startsWith(start))
  return Object.fromEntries(mine.map(([field, sentence]) => [field.slice(start.length), sentence]))
}

/** Return what to tell a cook about a failure. */
export function sentenceOf(failure: unknown): string {
  if (failure instanceof Refusal) return failure.problem.errors?.[0]?.sentence ?? failure.problem.detail
  return failure instanceof Error ? failure.message : 'Something went wrong. Try again.'
}
