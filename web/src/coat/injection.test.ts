import { VueQueryPlugin } from '@tanstack/vue-query'
import { mount } from '@vue/test-utils'
import { expect, it, vi } from 'vitest'
import InjectionMap from './InjectionMap.vue'
import type { Bone, Place } from './siteKeys'
import WindowScale from './WindowScale.vue'
import { sure } from '../kit/sure'

const stubs = { VIcon: true, Why: { template: '<span><slot /></span>' } }
const global = { stubs, plugins: [VueQueryPlugin] }
const solid = { shape: 'box', length_cm: 20, width_cm: 10, thickness_cm: 5, pieces: 1, area_cm2: 700, volume_cm3: 1000 }

function drawn(more: object = {}) {
  const props = {
    solid, bones: [[0.1, 0.5, 0.9, 0.5, 0.1]] as Bone[], sites: [[0.25, 0.25], [0.5, 0.5], [0.75, 0.75]] as Place[],
    misplaced: [{ site: 1, why: 'bone' }], gap: null, salt: [], chosen: 0, ...more,
  } // prettier-ignore
  return mount(InjectionMap, { props, global })
}

it('moves a site by 2 mm with the arrow keys, takes it out, and goes to the next', async () => {
  const map = drawn()
  const site = map.find('[data-site="0"]')
  await site.trigger('keydown', { key: 'ArrowRight' })
  await site.trigger('keydown', { key: 'ArrowUp' })
  expect(map.emitted('sites')).toEqual([
    [[[0.26, 0.25], [0.5, 0.5], [0.75, 0.75]]],
    [[[0.25, 0.23], [0.5, 0.5], [0.75, 0.75]]],
  ]) // prettier-ignore
  await site.trigger('keydown', { key: 'PageDown' })
  expect(map.emitted('update:chosen')?.at(-1)).toEqual([1])
  await map.find('[data-site="2"]').trigger('keydown', { key: 'Delete' })
  expect(map.emitted('sites')?.at(-1)).toEqual([[[0.25, 0.25], [0.5, 0.5]]]) // prettier-ignore
})

it('keeps a site and a bone within the drawing', async () => {
  const map = drawn({ sites: [[0, 0.995]], misplaced: [] })
  const site = map.find('[data-site="0"]')
  await site.trigger('keydown', { key: 'ArrowLeft' })
  await site.trigger('keydown', { key: 'ArrowDown' })
  expect(map.emitted('sites')).toEqual([[[[0, 0.995]]], [[[0, 1]]]])
  await sure(map.findAll('.end')[1]).trigger('keydown', { key: 'ArrowLeft' })
  expect(map.emitted('bones')).toEqual([[[[0.1, 0.5, 0.89, 0.5, 0.1]]]])
})

it('names a site on bone in its words and not by colour alone', () => {
  const map = drawn()
  expect(map.find('[data-site="1"]').attributes('aria-label')).toBe(
    'Site 2 of 3, 10.0 cm from the thick end, 5.0 cm down, on bone',
  )
  expect(map.findAll('.cross')).toHaveLength(1)
  expect(map.findAll('.site text').map((text) => text.text())).toEqual(['1', '2'])
  // too many bones to take by their ends
  const ribs = Array.from({ length: 8 }, (_, n) => [n / 8, 0, n / 8, 1, 0.05])
  expect(drawn({ bones: ribs }).findAll('.end')).toHaveLength(0)
})

it('shades the meat by the salt of its cells, and leaves it plain where there is no meat or no salt', () => {
  const points: number[][] = []
  const pen = {
    createImageData: (w: number, h: number) => ({ data: new Uint8ClampedArray(w * h * 4) }),
    putImageData: (image: { data: Uint8ClampedArray }) => points.push([...image.data]),
  }
  const context = vi.spyOn(HTMLCanvasElement.prototype, 'getContext').mockReturnValue(pen as never)
  const url = vi.spyOn(HTMLCanvasElement.prototype, 'toDataURL').mockReturnValue('data:image/png;base64,x')
  const map = drawn({ salt: ['.05', '990'] })
  expect(map.find('image').attributes('href')).toBe('data:image/png;base64,x')
  const alpha = sure(points[0]).filter((_, n) => n % 4 === 3)
  expect(alpha.map((value) => value > 0)).toEqual([false, false, true, true, true, false])
  expect(alpha[3]).toBeGreaterThan(sure(alpha[2]))
  expect(drawn().find('image').exists()).toBe(false)
  context.mockRestore()
  url.mockRestore()
})

it('shows where a hold lies, and takes another one from the scale or from a school', async () => {
  const window = {
    acid_class: 'strong', because: '3 % acid is above 2 %', thickness: 'thick',
    limits: {
      acid_class: 'strong', meat_class: 'tough', thickness: 'thick', cautious_low_min: 30, cautious_high_min: 120,
      long_low_min: 120, long_high_min: 480, reason: 'It greys.', source: 'trade',
    },
    weaker: { acid_class: 'medium', water_g: 24.2, long_high_min: 720 },
  } // prettier-ignore
  const scale = (holdS: number, standing: string) =>
    mount(WindowScale, {
      props: { window, standing, tooLong: standing.startsWith('longer'), holdS, reach: null },
      global,
    })
  const long = scale(16 * 3600, 'longer than either school')
  expect(long.text()).toContain('16 h is longer than either school.')
  expect(long.text()).toContain('24 g of water to 100 g makes it medium, which may work 12 h')
  const left = (selector: string) => parseFloat(long.find<HTMLElement>(selector).element.style.left)
  expect(left('.mine')).toBeGreaterThan(left('i.long'))
  expect(scale(3600, 'inside the cautious school').text()).not.toContain('Or thin it')
  await sure(long.findAll('.legend button')[1]).trigger('click')
  await long.find('input').setValue(50)
  await long.find('input').trigger('keydown', { key: 'ArrowLeft' })
  await scale(3600, '').find('input').trigger('keydown', { key: 'Tab' })
  const hour = scale(3600, 'inside the cautious school')
  await hour.find('input').trigger('keydown', { key: 'ArrowLeft' })
  await hour.find('input').trigger('keydown', { key: 'ArrowRight' })
  expect(hour.emitted('take')).toEqual([['55 min'], ['1 h 15 min']])
  expect(long.emitted('take')).toEqual([['8 h'], ['7 h'], ['15 h 30 min']])
})
