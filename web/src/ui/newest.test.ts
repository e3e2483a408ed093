import { effectScope } from 'vue'
import { expect, it } from 'vitest'
import { useNewest } from './newest'

it('lets nothing come of what was called off, neither an answer nor a failure', async () => {
  const { ask, drop } = effectScope().run(useNewest)!
  const ends: { answer: (text: string) => void; fail: (reason: Error) => void }[] = []
  const open = () => ask(() => new Promise<string>((answer, fail) => ends.push({ answer, fail })))
  const asked = [open(), open(), open()]
  drop()
  ends[2].answer('of the list before')
  ends[1].fail(new Error('gone'))
  ends[0].answer('older still')
  expect(await Promise.all(asked)).toEqual([null, null, null])
  expect(await ask(async () => 'of the list as it stands')).toEqual({ answer: 'of the list as it stands' })
  const failure = new Error('no')
  expect(await ask(() => Promise.reject(failure))).toEqual({ failure })
})

it('is called off with what it was for', async () => {
  const scope = effectScope()
  const { ask } = scope.run(useNewest)!
  let called: AbortSignal | undefined
  const asked = ask(async (signal) => void (called = signal))
  scope.stop()
  expect([await asked, called?.aborted]).toEqual([null, true])
})
