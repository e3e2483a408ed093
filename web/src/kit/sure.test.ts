import { expect, it } from 'vitest'
import { sure } from './sure'

it('takes what is there as it is, also nothing counted, and stops at what is missing', () => {
  expect([sure(0), sure(''), sure(false)]).toEqual([0, '', false])
  expect(() => sure([1][1])).toThrow('missing')
  expect(() => sure(null)).toThrow('missing')
})
