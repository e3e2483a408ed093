import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { inTrouble, trouble, whenBack } from './server'
import { sure } from '../kit/sure'

beforeEach(() => vi.useFakeTimers())
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

it('says what is wrong until the server is back, and tells those who wait', async () => {
  const answers = [
    () => Promise.reject(new TypeError('no answer')),
    () =>
      Promise.resolve(
        new Response(JSON.stringify({ title: 'The disk is full', says: ['Make room.'] }), { status: 503 }),
      ),
    () => Promise.resolve(new Response('{"state":"ready"}')),
  ]
  vi.stubGlobal('fetch', () => sure(answers.shift())())
  const back = vi.fn()
  const leave = whenBack(back)
  inTrouble()
  expect(trouble.value?.title).toBe('Ravska’s server does not answer')
  await vi.advanceTimersByTimeAsync(2000)
  expect(trouble.value?.title).toBe('Ravska’s server does not answer')
  await vi.advanceTimersByTimeAsync(2000)
  expect(trouble.value).toEqual({ title: 'The disk is full', says: ['Make room.'] })
  expect(back).not.toHaveBeenCalled()
  await vi.advanceTimersByTimeAsync(2000)
  expect([trouble.value, back.mock.calls.length, answers.length]).toEqual([null, 1, 0])
  leave()
})
