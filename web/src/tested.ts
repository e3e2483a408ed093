import { config, type VueWrapper } from '@vue/test-utils'
import { afterEach, vi } from 'vitest'
import { VSelect } from 'vuetify/components'
import { ourVuetify } from './kit/vuetify'

// what every component of ours may rest on
config.global.plugins.push(ourVuetify())
// files share their world, so that it is made once: each leaves the clock and the page as it found them
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})
globalThis.ResizeObserver ??= class {
  observe() {}
  unobserve() {}
  disconnect() {}
}

/** The box of a choice by its name, as a cook finds it: what it offers, and how to take one. */
export function choiceOf(within: VueWrapper, name: string) {
  const id = within
    .findAll('label')
    .find((label) => label.text() === name)
    ?.attributes('for')
  const box = within.findAllComponents(VSelect).find((one) => one.props('id') === id || one.attributes('id') === id)
  if (!box) throw new Error(`No choice is called ${name}.`)
  const items = box.props('items') as { value?: unknown; title: string }[]
  return {
    value: box.props('modelValue') as unknown,
    offers: items.filter((item) => item.value !== undefined).map((item) => item.title),
    take: async (value: unknown) => {
      box.vm.$emit('update:modelValue', value)
      await within.vm.$nextTick()
    },
  }
}
