import { QueryClient, QueryObserver } from '@tanstack/vue-query'
import { expect, it } from 'vitest'
import { keep, refresh } from './kept'
import { sure } from '../kit/sure'

/** A list that is being looked at, whose answers are given one by one. */
function looked() {
  const queries = new QueryClient({ defaultOptions: { queries: { networkMode: 'always' } } })
  const answers: ((list: string[]) => void)[] = []
  const queryFn = () => new Promise<string[]>((answer) => answers.push(answer))
  new QueryObserver(queries, { queryKey: ['stacks'], queryFn, retry: false }).subscribe(() => {})
  return { queries, answers, now: () => queries.getQueryData(['stacks']) }
}

it('asks again after a change even while the first answer is on its way, and shows the newer', async () => {
  const { queries, answers, now } = looked()
  const asked = refresh(queries, ['stacks'])
  await expect.poll(() => answers.length).toBe(2)
  sure(answers[1])(['kept before', 'kept now'])
  await asked
  sure(answers[0])(['kept before'])
  await new Promise((done) => setTimeout(done, 5))
  expect(now()).toEqual(['kept before', 'kept now'])
})

it('does not let an older answer undo what the server has just told', async () => {
  const { queries, answers, now } = looked()
  await keep(queries, ['stacks'], ['told'])
  sure(answers[0])(['before'])
  await new Promise((done) => setTimeout(done, 5))
  expect(now()).toEqual(['told'])
  await keep<string[]>(queries, ['stacks'], (before) => before && [...before, 'more'])
  expect(now()).toEqual(['told', 'more'])
})

it('forgets what nobody looks at, so that it is not shown as it was before the change', async () => {
  const queries = new QueryClient()
  queries.setQueryData(['stacks'], ['before'])
  queries.setQueryData(['cooks'], ['untouched'])
  await refresh(queries, ['stacks'])
  expect([queries.getQueryData(['stacks']), queries.getQueryData(['cooks'])]).toEqual([undefined, ['untouched']])
})
