import { mount } from '@vue/test-utils'
import { Temporal } from 'temporal-polyfill'
import { describe, expect, it } from 'vitest'
import When from './When.vue'
import { momentOf, nextSaturday, timeOf, wallAt } from './when'

// when clocks change is the zone database's; these were checked by hand against its published table for 2027
const ZONE = 'Europe/Berlin'

describe('a day and a time on the wall', () => {
  it('is the moment it is there, in summer and in winter', () => {
    expect(momentOf({ day: '2027-06-12', time: '18:30' }, ZONE)).toEqual({ iso: '2027-06-12T16:30:00Z', says: '' })
    expect(momentOf({ day: '2026-12-05', time: '18:30' }, ZONE).iso).toBe('2026-12-05T17:30:00Z')
    expect(momentOf({ day: '2026-12-05', time: '18:30' }, 'America/New_York').iso).toBe('2026-12-05T23:30:00Z')
    expect(wallAt('2026-12-05T23:30:00Z', 'Asia/Kolkata')).toEqual({ day: '2026-12-06', time: '05:00' })
    expect(wallAt('2026-12-05T18:30:00+05:30', 'UTC')).toEqual({ day: '2026-12-05', time: '13:00' })
    expect(wallAt('next Saturday', ZONE)).toBeNull()
  })

  it('is no moment where the clocks leave it out, and the first where they show it twice', () => {
    expect(momentOf({ day: '2027-03-28', time: '02:30' }, ZONE)).toEqual({
      iso: '',
      says: 'The clocks go forward then: there is no 02:30. Write another time.',
    })
    const twice = momentOf({ day: '2027-10-31', time: '02:30' }, ZONE)
    expect(twice).toEqual({ iso: '2027-10-31T00:30:00Z', says: 'The clocks go back then: this is the first 02:30.' })
    expect(momentOf({ day: '2027-10-31', time: '03:30' }, ZONE)).toEqual({ iso: '2027-10-31T02:30:00Z', says: '' })
  })
})

it('reads a time as it is said, and asks where it may be morning or evening', () => {
  const read = (typed: string) => timeOf(typed).time || timeOf(typed).says
  expect(['18:30', '1830', '18.30', '18h30', ' 18 ', '0:15', '06:30'].map(read)).toEqual([
    '18:30', '18:30', '18:30', '18:30', '18:00', '00:15', '06:30',
  ]) // prettier-ignore
  expect(['6.30 pm', '6pm', '12 am', '12:05 p.m.', '11:59 AM'].map(read)).toEqual([
    '18:30', '18:00', '00:00', '12:05', '11:59',
  ]) // prettier-ignore
  expect(['6', '6:30'].map(read)).toEqual(['Write 06:00 or 18:00.', 'Write 06:30 or 18:30.'])
  const wrong = 'Write a time such as 18:30.'
  expect(['', 'noon', '24:00', '18:60', '13 pm', '0 am', '18:3'].map(read)).toEqual(Array(7).fill(wrong))
})

it('takes the Saturday to come, never today', () => {
  const from = (day: string) =>
    nextSaturday(Temporal.PlainDate.from(day).toZonedDateTime({ timeZone: ZONE, plainTime: '12:00' }))
  expect(from('2026-12-04')).toBe('2026-12-05T17:30:00Z')
  expect(from('2026-12-05')).toBe('2026-12-12T17:30:00Z')
  expect(from('2026-12-06')).toBe('2026-12-12T17:30:00Z')
  expect(from('2027-03-22')).toBe('2027-03-27T17:30:00Z')
  expect(from('2027-03-28')).toBe('2027-04-03T16:30:00Z')
})

it('tells nothing while the time is unclear, says why, and keeps what was typed', async () => {
  const at = (time: string, day = '2026-12-05') => momentOf({ day, time }).iso
  const when = mount(When, { props: { modelValue: at('18:30'), label: 'Served' } })
  const time = when.find('input')
  expect(when.find('.day').text()).toContain('Saturday 5 December')
  expect(time.element.value).toBe('18:30')
  await time.setValue('7')
  expect(when.emitted('update:modelValue')).toEqual([['']])
  expect(when.find('[role=alert]').text()).toBe('Write 07:00 or 19:00.')
  expect(time.element.value).toBe('7')
  await time.setValue('7 pm')
  expect(when.emitted('update:modelValue')?.[1]).toEqual([at('19:00')])
  expect(when.find('.says').exists()).toBe(false)
  // undone from without
  await when.setProps({ modelValue: at('18:30', '2026-12-12') })
  expect(when.find('.day').text()).toContain('Saturday 12 December')
  expect(time.element.value).toBe('18:30')
})
