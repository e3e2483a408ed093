import { expect, it } from 'vitest'
import { once } from './once'

it('is done once, however often it is pressed before it is done; then again, and after a failure too', async () => {
  const ends: (() => void)[] = []
  const make = once((name: string) => new Promise<string>((done) => ends.push(() => done(name))))
  const pressed = [make('first'), make('second'), make('third')]
  expect([ends.length, make.busy.value]).toEqual([1, true])
  ends[0]()
  expect(await Promise.all(pressed)).toEqual(['first', undefined, undefined])
  const next = make('next')
  ends[1]()
  expect(await next).toBe('next')

  let fails = true
  const risky = once(async () => {
    if (fails) throw new Error('no')
    return 'made'
  })
  await expect(risky()).rejects.toThrow('no')
  fails = false
  expect([await risky(), risky.busy.value]).toEqual(['made', false])
})
