import type { Schemas } from '../api/client'

/** How wide a figure is where that matters: "±12 %", or "24 to 41 %" when it is lopsided; nothing for a sure one. */
export function doubt(figure: Schemas['Figure'], from = 0.08): string {
  const { value, low, high } = figure
  if (low === null || high === null || low === undefined || high === undefined || !value) return ''
  const below = 1 - low / value
  const above = high / value - 1
  if (Math.max(below, above) < from) return ''
  const digits = value < 10 ? 1 : 0
  const unit = figure.unit === '%' ? ' %' : ''
  return `${low.toFixed(digits)} to ${high.toFixed(digits)}${unit}`
}
