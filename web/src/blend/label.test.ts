import { mount } from '@vue/test-utils'
import { beforeEach, expect, it, vi } from 'vitest'
import { nextTick } from 'vue'
import LabelForm from './LabelForm.vue'
import { sure } from '../kit/sure'

const waiting: ((found: object) => void)[] = []
vi.mock('../api/client', async (original) => ({
  ...(await original<object>()),
  api: { POST: vi.fn() },
  call: () => new Promise((answer) => waiting.push(answer)),
}))
beforeEach(() => vi.useFakeTimers())

it('drops an answer that is about the label before, so that it undoes nothing typed since', async () => {
  const label = { portion: '1.2 g', sodium: '310 mg', sodium_as: 'sodium', sugars: '', fat: '', rule: 'us' }
  const form = mount(LabelForm, {
    props: { label: label as never, ingredients: 'salt, sugar', kind: 'dry rub', batch: '50 g' },
    global: { stubs: { Field: true, Choice: true, AddLine: true, Why: true } },
  })
  await vi.advanceTimersByTimeAsync(300)
  await form.setProps({ label: { ...label, sodium: '250 mg' } as never })
  sure(waiting[0])({ names: [], label })
  await nextTick()
  expect(form.emitted('read')).toBeUndefined()
  await vi.advanceTimersByTimeAsync(300)
  sure(waiting[1])({ names: [], label: { ...label, sodium: '250 mg' } })
  await nextTick()
  await nextTick()
  expect(form.emitted('read')).toHaveLength(1)
})
