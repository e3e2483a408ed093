import type { Temperature } from '../kit/units'

/** What a thermometer shows, as large as it is said: to a tenth where that is not nought. */
export function read(celsius: number, scale: Temperature): string {
  const shown = scale === 'F' ? celsius * 1.8 + 32 : celsius
  return `${Number(shown.toFixed(1))} °${scale}`
}
