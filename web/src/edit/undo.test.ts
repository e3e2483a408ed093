import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { effectScope, nextTick, ref, type EffectScope } from 'vue'
import { useUndo } from './undo'
import { sure } from '../kit/sure'

let scope: EffectScope
beforeEach(() => {
  vi.useFakeTimers()
  scope = effectScope()
})
afterEach(() => {
  scope.stop()
  vi.useRealTimers()
})

async function started() {
  const doc = ref<{ parts: string[] } | null>({ parts: ['1', '2'] })
  const changed = vi.fn()
  const history = sure(scope.run(() => useUndo(doc, changed)))
  history.beginHistory()
  const type = async (text: string) => {
    sure(doc.value).parts[0] = text
    await nextTick()
    await vi.advanceTimersByTimeAsync(300)
  }
  return { doc, changed, history, type }
}
const press = (shiftKey = false) =>
  window.dispatchEvent(new KeyboardEvent('keydown', { key: shiftKey ? 'Z' : 'z', ctrlKey: true, shiftKey }))

it('goes back and forth through what was typed, and says that it did', async () => {
  const { doc, changed, history, type } = await started()
  await type('3')
  await type('4')
  press()
  expect(sure(doc.value).parts).toEqual(['3', '2'])
  press()
  expect(sure(doc.value).parts).toEqual(['1', '2'])
  press()
  expect(sure(doc.value).parts).toEqual(['1', '2'])
  press(true)
  expect(sure(doc.value).parts).toEqual(['3', '2'])
  expect(changed).toHaveBeenCalledTimes(3)
  expect(history.canRedo.value).toBe(true)
})

it('takes back what was typed a moment ago, and a late snapshot does not bring it back', async () => {
  const { doc, type } = await started()
  await type('3')
  sure(doc.value).parts[0] = '99'
  await nextTick()
  press()
  expect(sure(doc.value).parts[0]).toBe('3')
  await vi.advanceTimersByTimeAsync(500)
  press(true)
  expect(sure(doc.value).parts[0]).toBe('99')
})

it('leaves Ctrl+Z to a field whose text is none of the document', async () => {
  const { doc, type } = await started()
  document.body.innerHTML = '<input id="search"><input id="parts"><div class="v-overlay"><input id="name"></div>'
  const field = (id: string) => document.getElementById(id) as HTMLInputElement
  const pressIn = (id: string) => {
    const event = new KeyboardEvent('keydown', { key: 'z', ctrlKey: true, bubbles: true, cancelable: true })
    field(id).dispatchEvent(event)
    return event.defaultPrevented
  }
  await type('3')
  field('search').focus()
  field('search').value = 'pepper'
  expect([pressIn('search'), sure(doc.value).parts[0]]).toEqual([false, '3'])
  field('name').focus()
  expect([pressIn('name'), sure(doc.value).parts[0]]).toEqual([false, '3'])
  // what is typed here is the document's, so the step is too
  field('parts').focus()
  field('parts').value = '4'
  await type('4')
  expect([pressIn('parts'), sure(doc.value).parts[0]]).toEqual([true, '3'])
})
