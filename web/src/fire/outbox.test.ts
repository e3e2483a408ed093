import { beforeEach, expect, test, vi } from 'vitest'
import { Unreachable } from '../api/client'

const place = new Map<string, unknown>()
vi.mock('idb-keyval', () => ({
  get: (key: string) => Promise.resolve(place.get(key)),
  set: (key: string, value: unknown) => Promise.resolve(void place.set(key, value)),
}))
const sent = vi.fn()
vi.mock('../api/client', async (original) => ({
  ...(await original<typeof import('../api/client')>()),
  api: { POST: (...given: unknown[]) => sent(...given) as unknown },
  call: (pending: unknown) => pending,
}))

const tap = (key: string, what = 'spritz') => ({ key, what, at: '2027-06-12T12:00:00Z' })
const keys = (nth: number) =>
  ((sent.mock.calls[nth]?.[1] as { body: { taps: { key: string }[] } }).body.taps ?? []).map((one) => one.key)
const settle = () => new Promise((done) => setTimeout(done, 5))

beforeEach(() => {
  vi.resetModules()
  sent.mockReset()
  place.clear()
})

test('what is tapped is kept here before it is sent, and let go once it is noted', async () => {
  const { outbox, put } = await import('./outbox')
  let answer: (noted: unknown) => void = () => {}
  sent.mockReturnValueOnce(new Promise((done) => (answer = done)))
  await put('cook', tap('a'))
  expect(place.get('ravska:taps')).toEqual([{ cook: 'cook', tap: tap('a') }])
  answer({ noted: ['a'], refused: [] })
  await settle()
  expect(outbox.value).toEqual([])
  expect(place.get('ravska:taps')).toEqual([])
})

test('what gets no answer stays, in order, and goes out together later, each once', async () => {
  const { outbox, put } = await import('./outbox')
  sent.mockRejectedValueOnce(new Unreachable())
  await put('cook', tap('a'))
  await settle()
  sent.mockRejectedValueOnce(new Unreachable())
  await put('cook', tap('b', 'fuel'))
  await settle()
  expect(outbox.value.map((one) => one.tap.key)).toEqual(['a', 'b'])
  sent.mockResolvedValue({ noted: ['a', 'b', 'c'], refused: [] })
  await put('cook', tap('c'))
  await settle()
  expect(keys(2)).toEqual(['a', 'b', 'c'])
  expect(sent).toHaveBeenCalledTimes(3)
  expect(outbox.value).toEqual([])
})

test('what was left from before the page was loaded goes first', async () => {
  place.set('ravska:taps', [{ cook: 'cook', tap: tap('old') }])
  sent.mockResolvedValue({ noted: ['old'], refused: [] })
  const { outbox, takeUp } = await import('./outbox')
  await takeUp()
  await settle()
  expect(keys(0)).toEqual(['old'])
  expect(outbox.value).toEqual([])
})

test('one that is refused is said and stands in nobody’s way', async () => {
  const { outbox, put } = await import('./outbox')
  const { notice } = await import('../kit/notice')
  sent.mockResolvedValue({ noted: [], refused: [{ row: 0, field: 'word', sentence: 'Say which.' }] })
  await put('cook', tap('a', 'feel'))
  await settle()
  expect(notice.value?.text).toBe('Say which.')
  expect(outbox.value).toEqual([])
})
