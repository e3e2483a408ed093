import { scaleLinear } from 'd3-scale'

const shade = scaleLinear<string>()
  .domain([35, 50, 57, 64, 74, 92, 115, 150, 200])
  .range(['#8f3136', '#ab4a4a', '#c97f79', '#d3a698', '#bd9e8a', '#96775f', '#6b4c38', '#3d2a1f', '#1f1511'])
  .clamp(true)

/** The colour of meat that was heated so far. */
export const browned = (celsius: number): string => shade(celsius)

const STEPS_MIN = [1, 2, 5, 10, 15, 30, 60, 120, 180, 240, 360, 720, 1440]

/** Marks of a scale of time from its start, eight at most, each with its text. */
export function timeTicks(whole_s: number): { at: number; text: string }[] {
  const step = (STEPS_MIN.find((minutes) => whole_s / (minutes * 60) <= 8) ?? 1440) * 60
  const said = (seconds: number) =>
    step < 3600 ? `${Math.round(seconds / 60)}${seconds ? '' : ' min'}` : `${seconds / 3600}${seconds ? '' : ' h'}`
  return Array.from({ length: Math.floor(whole_s / step) + 1 }, (_, n) => ({ at: n * step, text: said(n * step) }))
}
