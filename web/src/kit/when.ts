import { Temporal } from 'temporal-polyfill'

/** A day and a time as the clock on the wall has them: "2026-12-05" and "18:30". */
export interface Wall {
  day: string
  time: string
}
const here = () => Temporal.Now.timeZoneId()

/** What the wall shows at a moment; null for what is no moment. */
export function wallAt(iso: string, zone = here()): Wall | null {
  try {
    const at = Temporal.Instant.from(iso).toZonedDateTimeISO(zone)
    return { day: at.toPlainDate().toString(), time: at.toPlainTime().toString({ smallestUnit: 'minute' }) }
  } catch {
    return null
  }
}

/** The moment the wall shows this. A time that the clocks leave out that night is none; one they show twice is the first. */
export function momentOf({ day, time }: Wall, zone = here()): { iso: string; says: string } {
  const wall = Temporal.PlainDate.from(day).toPlainDateTime(time)
  const at = wall.toZonedDateTime(zone, { disambiguation: 'earlier' })
  if (!at.toPlainDateTime().equals(wall))
    return { iso: '', says: `The clocks go forward then: there is no ${time}. Write another time.` }
  const twice = !wall.toZonedDateTime(zone, { disambiguation: 'later' }).equals(at)
  return { iso: at.toInstant().toString(), says: twice ? `The clocks go back then: this is the first ${time}.` : '' }
}

/** A time of day as typed: "18:30", "1830", "6.30 pm", "6pm". What may be morning or evening is asked. */
export function timeOf(typed: string): { time: string; says: string } {
  const [, hours = '', minutes = '00', half = ''] =
    /^(\d\d?)(?:[:.h]?(\d\d))?\s*(?:([ap])\.?\s?m\.?)?$/i.exec(typed.trim()) ?? []
  const hour = Number(hours)
  const at = (h: number) => `${String(h).padStart(2, '0')}:${minutes}`
  const wrong = { time: '', says: 'Write a time such as 18:30.' }
  if (!hours || Number(minutes) > 59) return wrong
  if (half) {
    if (hour < 1 || hour > 12) return wrong
    return { time: at((hour % 12) + (half.toLowerCase() === 'p' ? 12 : 0)), says: '' }
  }
  if (hour > 23) return wrong
  if (hours.length === 1 && hour) return { time: '', says: `Write ${at(hour)} or ${at(hour + 12)}.` }
  return { time: at(hour), says: '' }
}

/** Half past six on the next Saturday: when people usually sit down. */
export function nextSaturday(now = Temporal.Now.zonedDateTimeISO()): string {
  const ahead = (13 - now.dayOfWeek) % 7 || 7
  return momentOf({ day: now.toPlainDate().add({ days: ahead }).toString(), time: '18:30' }, now.timeZoneId).iso
}
