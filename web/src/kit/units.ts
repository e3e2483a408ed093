/** How numbers are shown in the household's units. Stored values stay canonical: g, ml, cm, cm2, °C. */

export type Units = 'metric' | 'us'
export type Temperature = 'C' | 'F'

const OUNCE_G = 28.349523125
const POUND_KG = 0.45359237
const CUP_ML = 236.5882365
const TABLESPOON_ML = CUP_ML / 16
const TEASPOON_ML = CUP_ML / 48
const INCH_CM = 2.54

function fixed(value: number, digits: number): string {
  return value.toFixed(digits)
}

/** Two or three figures that a kitchen can use: 0.42, 4.2, 42, 420. */
function kitchen(value: number): string {
  const size = Math.abs(value)
  return fixed(value, size < 1 ? 2 : size < 100 ? 1 : 0)
}

export function mass(grams: number, units: Units): string {
  if (units === 'us') {
    const ounces = grams / OUNCE_G
    if (ounces < 16) return `${fixed(ounces, ounces < 10 ? 2 : 1)} oz`
    const whole = Math.round(ounces)
    return whole % 16 ? `${Math.floor(whole / 16)} lb ${whole % 16} oz` : `${whole / 16} lb`
  }
  return grams < 1000 ? `${kitchen(grams)} g` : `${fixed(grams / 1000, 2)} kg`
}

const EIGHTHS = ['', '⅛', '¼', '⅜', '½', '⅝', '¾', '⅞']
/** To the nearest eighth, as a cup is marked: "2⅜". */
function eighths(value: number): string {
  const count = Math.round(value * 8)
  return `${count >= 8 ? Math.floor(count / 8) : ''}${EIGHTHS[count % 8]}`
}

/** A dose in whole grams or quarter ounces, as it is said aloud. */
export function dose(grams: number, units: Units): string {
  if (units === 'us') return mass(grams, units)
  return grams < 10 ? `${fixed(grams, 1)} g` : grams < 1000 ? `${Math.round(grams)} g` : mass(grams, units)
}

export function volume(ml: number, units: Units): string {
  if (units === 'us') {
    if (ml < TABLESPOON_ML) return `${eighths(ml / TEASPOON_ML) || '0'} tsp`
    if (ml < CUP_ML / 4) return `${eighths(ml / TABLESPOON_ML)} tbsp`
    return `${eighths(ml / CUP_ML)} ${ml > CUP_ML * (1 + 1 / 16) ? 'cups' : 'cup'}`
  }
  return ml < 1000 ? `${ml < 10 ? fixed(ml, 1) : Math.round(ml)} ml` : `${fixed(ml / 1000, 2)} l`
}

/** A dial's setting: "5 g/100 cm²"; in the US view ounces on 100 in² or to the pound, and cups to the pound. */
export function setting(value: number, unit: string, units: Units): string {
  const said = (number: number) => Number(number.toPrecision(units === 'us' ? 2 : 3))
  if (units === 'us') {
    const ounces = value / OUNCE_G
    if (unit.startsWith('g/100 cm²')) return `${said(ounces * INCH_CM ** 2)} oz/100 in²${unit.slice(9)}`
    if (unit.startsWith('g/kg')) return `${said(ounces * POUND_KG)} oz/lb${unit.slice(4)}`
    if (unit === 'ml/kg') return `${said((value * POUND_KG) / CUP_ML)} cups/lb`
  }
  return `${said(value)} ${unit}`
}

/** A sentence of the core's, which writes depths in millimetres and, where not in both scales, degrees in °C. */
export function sentence(text: string, units: Units, scale: Temperature = 'C'): string {
  const said = units === 'us' ? text.replace(/([\d.]+)\smm\b/g, (_, mm: string) => depth(Number(mm), units)) : text
  return scale === 'C'
    ? said
    : said.replace(/(−?\d+(?:\.\d+)?)\s°C(?! \()/g, (_, c: string) => temperature(Number(c), scale))
}

export function area(cm2: number, units: Units): string {
  return units === 'us' ? `${Math.round(cm2 / INCH_CM ** 2)} in²` : `${Math.round(cm2)} cm²`
}

export function length(cm: number, units: Units): string {
  return units === 'us' ? `${fixed(cm / INCH_CM, 1)} in` : `${fixed(cm, 1)} cm`
}

/** How deep something has got, of millimetres. */
export function depth(mm: number, units: Units): string {
  return units === 'us' ? `${fixed(mm / 10 / INCH_CM, 2)} in` : `${fixed(mm, 1)} mm`
}

/** The marks of a scale of depth from 0 to so many centimetres, seven at most, each with its text. */
export function depthTicks(deepest_cm: number, units: Units): { cm: number; text: string }[] {
  const step = units === 'us' ? INCH_CM / 8 : 0.1
  const counts = units === 'us' ? [1, 2, 4, 8, 16] : [1, 2, 5, 10, 20, 50]
  const every = step * (counts.find((count) => deepest_cm / (step * count) <= 7) ?? 50)
  const said = (cm: number) => {
    if (units === 'metric') return `${Number((cm * 10).toFixed(1))}${cm ? '' : ' mm'}`
    const eighths = Math.round((cm / INCH_CM) * 8)
    return `${eighths < 8 && eighths ? '' : Math.floor(eighths / 8)}${EIGHTHS[eighths % 8]}${eighths ? '' : ' in'}`
  }
  const count = Math.floor(deepest_cm / every + 1e-9)
  return Array.from({ length: count + 1 }, (_, n) => ({ cm: n * every, text: said(n * every) }))
}

export function temperature(celsius: number, scale: Temperature): string {
  return scale === 'F' ? `${Math.round((celsius * 9) / 5 + 32)} °F` : `${Math.round(celsius)} °C`
}

/** How many degrees more or less, in a scale. */
export function difference(kelvin: number, scale: Temperature): string {
  const degrees = scale === 'F' ? kelvin * 1.8 : kelvin
  return `${degrees.toFixed(Math.abs(degrees) < 3 ? 1 : 0)} °${scale}`
}

export function percent(value: number): string {
  const size = Math.abs(value)
  // below a tenth of a percent nothing here is known to more than one figure
  if (size >= 0.0005 && size < 0.1) return `${Number(value.toPrecision(1))} %`
  return `${fixed(value, size < 10 ? 2 : 1)} %`
}

/** A salt that may be next to none; "0.00 %" of an estimate would say more than is known. */
export function little(value: number): string {
  return value < 0.005 ? 'next to none' : percent(value)
}

export function duration(seconds: number): string {
  const minutes = Math.round(seconds / 60)
  const hours = Math.floor(minutes / 60)
  if (!hours) return `${minutes} min`
  return minutes % 60 ? `${hours} h ${minutes % 60} min` : `${hours} h`
}

/** A value in one of the core's units, for the working of a figure. */
export function inUnit(value: number, unit: string, units: Units): string {
  if (unit === 'g') return mass(value, units)
  if (unit === 'ml') return volume(value, units)
  if (unit === 'cm²') return area(value, units)
  if (unit === 'cm') return length(value, units)
  if (unit === 's') return duration(value)
  if (unit === '%') return percent(value)
  // never with an exponent: nobody in a kitchen reads one
  const figures = value !== 0 && Math.abs(value) < 0.01 ? 2 : 4
  const text = value.toLocaleString('en', { maximumSignificantDigits: figures, useGrouping: false })
  return unit ? `${text} ${unit}` : text
}

const clock: Intl.DateTimeFormatOptions = { hour: '2-digit', minute: '2-digit', hourCycle: 'h23' }

export function time(iso: string): string {
  return new Intl.DateTimeFormat('en-GB', clock).format(new Date(iso))
}

export function dayAndTime(iso: string): string {
  return new Intl.DateTimeFormat('en-GB', { weekday: 'short', ...clock }).format(new Date(iso)).replace(',', '')
}

/** A day without its weekday, its year where that is not this one: "31 October". */
export function shortDay(iso: string, now = new Date()): string {
  const at = new Date(iso)
  const year = at.getFullYear() === now.getFullYear() ? undefined : 'numeric'
  return new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'long', year }).format(at)
}

export function longDay(iso: string): string {
  return new Intl.DateTimeFormat('en-GB', { weekday: 'long', day: 'numeric', month: 'long' }).format(new Date(iso))
}

/** A day as a calendar has it, "2026-11-28", in words: "Saturday 28 November", its year where that is far. */
export function dayInFull(day: string, now = new Date()): string {
  const at = `${day}T12:00`
  const far = Math.abs(new Date(at).getTime() - now.getTime()) > 300 * 86_400_000
  return `${longDay(at)}${far ? ` ${day.slice(0, 4)}` : ''}`
}

/** A sentence in which no line ends between a number and its unit. */
export function unbroken(sentence: string): string {
  return sentence.replace(/(\d) (?=%|(?:[mk]?g|[mc]?l|[mc]m|h|min|°[CF]|oz|lb|fl oz|points?)\b)/g, '$1\u00a0')
}
