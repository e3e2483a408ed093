import { VueQueryPlugin } from '@tanstack/vue-query'
import { mount } from '@vue/test-utils'
import { expect, it } from 'vitest'
import { notice } from '../kit/notice'
import { useChange } from './change'
import { Refusal } from './client'

/** What a component gets of it, where the query library is at hand. */
function within<Got>(get: () => Got): Got {
  let got: Got | undefined
  const setup = () => {
    got = get()
    return () => null
  }
  mount({ setup }, { global: { plugins: [VueQueryPlugin] } })
  return got as Got
}
const settle = () => new Promise((done) => setTimeout(done))

it('does what was pressed in a hurry one after the other, from whatever part of the screen', async () => {
  const did: string[] = []
  const ends: (() => void)[] = []
  const slow = (what: string) => async (at: number) => {
    did.push(`${what} ${at} begins`)
    await new Promise<void>((done) => ends.push(done))
    did.push(`${what} ${at} ends`)
  }
  const [add, take] = within(() => [useChange('shelf', slow('add')), useChange('shelf', slow('take'))] as const)
  const all = [add(1), take(2), add(3)]
  while (ends.length < all.length || !did.at(-1)?.includes('3 ends')) {
    await settle()
    ends.at(-1)?.()
  }
  await Promise.all(all)
  expect(did).toEqual(['add 1 begins', 'add 1 ends', 'take 2 begins', 'take 2 ends', 'add 3 begins', 'add 3 ends'])
})

it('does not do the same thing twice when it is pressed again before it is done, and does it anew afterwards', async () => {
  let count = 0
  const make = within(() => useChange('cooks', async (name: string) => (name ? ++count : 0)))
  const both = [make('supper'), make('supper')]
  expect(make.busy.value).toBe(true)
  expect(await Promise.all(both)).toEqual([1, 1])
  expect([await make('supper'), make.busy.value]).toEqual([2, false])
  const press = within(() => useChange('jars', async (...given: unknown[]) => (given.length ? 0 : ++count)))
  expect(await Promise.all([press(new Event('click')), press(new Event('click'))])).toEqual([3, 3])
})

it('says what is refused, comes to nothing, and lets the next go on', async () => {
  const refusal = new Refusal({ type: '', title: '', status: 422, detail: 'No jar holds that.', errors: [] })
  const after: string[] = []
  const work = async (fails: boolean) => {
    if (fails) throw refusal
    return 'done'
  }
  const change = within(() => useChange('jar', work, { after: () => after.push('asked anew') }))
  expect(await Promise.all([change(true), change(false)])).toEqual([undefined, 'done'])
  expect(notice.value?.text).toBe('No jar holds that.')
  expect(after).toHaveLength(2)
})

it('tells a better place of what was refused, and of what', async () => {
  const told: unknown[] = []
  const refused = (failure: unknown, given: [string]) => told.push(String(failure), ...given)
  const change = within(() => useChange('prices', (of: string) => Promise.reject(new Error(`no ${of}`)), { refused }))
  await change('salt')
  expect(told).toEqual(['Error: no salt', 'salt'])
})
