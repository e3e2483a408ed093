import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { effectScope, type EffectScope } from 'vue'
import { Refusal, Unreachable } from './client'
import { inTrouble, trouble } from './server'
import { PATIENCE_MS, useQuestion } from './question'
import { sure } from '../kit/sure'

let scope: EffectScope
const started = () => sure(scope.run(() => useQuestion<string>({ patience: PATIENCE_MS })))
const refusal = new Refusal({
  type: 'about:blank',
  title: '',
  status: 422,
  detail: 'x',
  errors: [{ field: 'lines.0.parts', code: 'invalid', sentence: 'Write how many parts.' }],
})

beforeEach(() => {
  vi.useFakeTimers()
  scope = effectScope()
})
afterEach(() => {
  scope.stop()
  vi.useRealTimers()
})

it('shows the latest answer only, whatever order they come in', async () => {
  const { answer, ask } = started()
  let first: (text: string) => void = () => {}
  const slow = ask(() => new Promise((resolve) => (first = resolve)))
  await ask(async () => 'second')
  first('first')
  await slow
  expect(answer.value).toBe('second')
})

it('calls off the request that a newer key has overtaken', async () => {
  const { ask } = started()
  const signals: AbortSignal[] = []
  const slow = (signal: AbortSignal) => {
    signals.push(signal)
    return new Promise<string>(() => {})
  }
  void ask(slow)
  void ask(slow)
  expect(signals.map((signal) => signal.aborted)).toEqual([true, false])
})

it('keeps the last good numbers and complains only when typing pauses', async () => {
  const { answer, errors, ask } = started()
  await ask(async () => 'good')
  await ask(() => Promise.reject(refusal))
  expect([answer.value, errors.value]).toEqual(['good', {}])
  await vi.advanceTimersByTimeAsync(500)
  expect(errors.value).toEqual({ 'lines.0.parts': 'Write how many parts.' })
  await ask(async () => 'better')
  expect([answer.value, errors.value]).toEqual(['better', {}])
})

it('does not complain about a half-typed fraction that was finished in time', async () => {
  const { errors, ask } = started()
  await ask(() => Promise.reject(refusal))
  await vi.advanceTimersByTimeAsync(200)
  await ask(async () => 'whole')
  await vi.advanceTimersByTimeAsync(500)
  expect(errors.value).toEqual({})
})

it('lets nothing come of what was called off, neither an answer nor a failure', async () => {
  const { answer, errors, failure, ask, drop } = started()
  const ends: { answer: (text: string) => void; fail: (reason: Error) => void }[] = []
  const asked = [1, 2, 3].map(() => ask(() => new Promise((answer, fail) => ends.push({ answer, fail }))))
  drop()
  ends[2]?.answer('of the list before')
  ends[1]?.fail(refusal)
  ends[0]?.answer('older still')
  await Promise.all(asked)
  await vi.advanceTimersByTimeAsync(500)
  expect([answer.value, errors.value, failure.value]).toEqual([null, {}, null])
})

it('is called off with what it was for', async () => {
  const { ask } = started()
  let called: AbortSignal | undefined
  void ask((signal) => {
    called = signal
    return new Promise(() => {})
  })
  scope.stop()
  expect(called?.aborted).toBe(true)
})

it('waits for the next key, and knows whether its answer is of what is typed', async () => {
  let text = 'a'
  const sent: string[] = []
  const { answer, current, ask } = sure(
    scope.run(() =>
      useQuestion({
        after: 200,
        ask: async () => {
          sent.push(text)
          return text
        },
      }),
    ),
  )
  void ask()
  await vi.advanceTimersByTimeAsync(150)
  text = 'ab'
  void ask()
  await vi.advanceTimersByTimeAsync(250)
  expect([sent, answer.value, current.value]).toEqual([['ab'], 'ab', true])
  void ask()
  expect([answer.value, current.value]).toEqual(['ab', false])
})

it('asks again what got no answer when the server is back', async () => {
  vi.stubGlobal('fetch', async () => new Response('{}'))
  let up = false
  const ask = async () => {
    if (up) return 'here'
    inTrouble()
    throw new Unreachable()
  }
  const question = sure(scope.run(() => useQuestion({ ask })))
  await question.ask()
  expect([question.answer.value, question.says.value]).toEqual([null, 'Ravska’s server does not answer.'])
  up = true
  await vi.advanceTimersByTimeAsync(2500)
  expect([question.answer.value, question.says.value, trouble.value]).toEqual(['here', '', null])
  vi.unstubAllGlobals()
})
