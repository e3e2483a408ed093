import { afterEach, expect, it, vi } from 'vitest'
import { KEY, newKey, sendKeyed } from './keys'

afterEach(() => vi.unstubAllGlobals())
const write = (body: string) => new Request('http://book.test/api/cooks', { method: 'POST', body })

it('sends what got no answer again under the same key, and the next one under another', async () => {
  const keys: (string | null)[] = []
  let lost = 1
  vi.stubGlobal('fetch', async (_: string, sent: RequestInit) => {
    keys.push(new Headers(sent.headers).get(KEY))
    if (lost-- > 0) throw new TypeError('no answer')
    return new Response('{}', { status: 201 })
  })
  await expect(sendKeyed(write('supper'))).rejects.toThrow('no answer')
  await sendKeyed(write('another'))
  await sendKeyed(write('supper'))
  await sendKeyed(write('supper'))
  expect(keys[0]).toBe(keys[2])
  expect(new Set(keys).size).toBe(3)
})

it('asks without a key, and leaves one that was set', async () => {
  const keys: (string | null)[] = []
  vi.stubGlobal('fetch', async (asked: Request) => {
    keys.push(asked.headers.get(KEY))
    return new Response('{}')
  })
  await sendKeyed(new Request('http://book.test/api/cooks'))
  const own = newKey()
  await sendKeyed(new Request('http://book.test/api/cooks', { method: 'PUT', body: '{}', headers: { [KEY]: own } }))
  expect(keys).toEqual([null, own])
  expect(own).toMatch(/^[0-9a-f]{8}-[0-9a-f]{4}-4[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/)
})
