import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { effectScope, type EffectScope } from 'vue'
import { Refusal } from '../api/client'
import { useReading } from './reading'

let scope: EffectScope
const started = () => scope.run(() => useReading<string>())!
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
  const { reading, ask } = started()
  let first: (text: string) => void = () => {}
  const slow = ask(() => new Promise((resolve) => (first = resolve)))
  await ask(async () => 'second')
  first('first')
  await slow
  expect(reading.value).toBe('second')
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
  const { reading, errors, ask } = started()
  await ask(async () => 'good')
  await ask(() => Promise.reject(refusal))
  expect([reading.value, errors.value]).toEqual(['good', {}])
  await vi.advanceTimersByTimeAsync(500)
  expect(errors.value).toEqual({ 'lines.0.parts': 'Write how many parts.' })
  await ask(async () => 'better')
  expect([reading.value, errors.value]).toEqual(['better', {}])
})

it('does not complain about a half-typed fraction that was finished in time', async () => {
  const { errors, ask } = started()
  await ask(() => Promise.reject(refusal))
  await vi.advanceTimersByTimeAsync(200)
  await ask(async () => 'whole')
  await vi.advanceTimersByTimeAsync(500)
  expect(errors.value).toEqual({})
})
