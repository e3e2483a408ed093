import { describe, expect, it } from 'vitest'
import {
  area,
  depth,
  depthTicks,
  difference,
  dose,
  duration,
  dayInFull,
  inUnit,
  length,
  little,
  mass,
  percent,
  sentence,
  setting,
  temperature,
  unbroken,
  volume,
} from './units'

// NIST Handbook 44, appendix C: 1 oz = 28.349523125 g, 1 fl oz = 29.5735295625 ml, 1 in = 2.54 cm
describe('numbers in the household’s units', () => {
  it('shows weights as a scale reads them', () => {
    expect([mass(0.42, 'metric'), mass(16.31, 'metric'), mass(562.5, 'metric'), mass(2300, 'metric')]).toEqual([
      '0.42 g',
      '16.3 g',
      '563 g',
      '2.30 kg',
    ])
    expect([mass(28.349523125, 'us'), mass(2296.3114, 'us'), mass(453.59237, 'us')]).toEqual([
      '1.00 oz',
      '5 lb 1 oz',
      '1 lb',
    ])
    expect(dose(36.8, 'metric')).toBe('37 g')
  })

  it('shows volumes, areas, lengths and temperatures', () => {
    expect([volume(562.5, 'metric'), volume(562.5, 'us'), volume(1500, 'metric')]).toEqual([
      '563 ml',
      '2⅜ cups',
      '1.50 l',
    ])
    expect([area(736, 'metric'), area(736, 'us'), length(20.6, 'us')]).toEqual(['736 cm²', '114 in²', '8.1 in'])
    expect([temperature(4, 'F'), temperature(63, 'F'), temperature(74, 'C')]).toEqual(['39 °F', '145 °F', '74 °C'])
  })

  it('shows times, shares and working in the core’s units', () => {
    expect([duration(2700), duration(57600), duration(9000)]).toEqual(['45 min', '16 h', '2 h 30 min'])
    expect([percent(26.43), percent(1.158), percent(0.02), percent(2e-15), percent(0)]).toEqual([
      '26.4 %',
      '1.16 %',
      '0.02 %',
      '0.00 %',
      '0.00 %',
    ])
    expect([little(0.004), little(0.006), little(1.2)]).toEqual(['next to none', '0.006 %', '1.20 %'])
    expect([inUnit(0.0126, 'cm³', 'us'), inUnit(0.0012, '', 'us'), inUnit(1886, 'g', 'metric')]).toEqual([
      '0.0126 cm³',
      '0.0012',
      '1.89 kg',
    ])
  })
})

it('says a day with its weekday, and its year where that is far', () => {
  const now = new Date('2026-11-28T12:00')
  expect(dayInFull('2026-12-05', now)).toBe('Saturday 5 December')
  expect(dayInFull('2027-10-02', now)).toBe('Saturday 2 October 2027')
})

it('breaks no line between a number and its unit', () => {
  const said = 'The thin end comes to 2.70 % salt after 2 h at 63 °C, in 4 months, 1 lb 2 oz of it.'
  expect(unbroken(said).replaceAll('\u00a0', '_')).toBe(
    'The thin end comes to 2.70_% salt after 2_h at 63_°C, in 4 months, 1_lb 2_oz of it.',
  )
})

it('marks a scale of depth in millimetres or eighths of an inch', () => {
  expect(depthTicks(2.5, 'metric').map((tick) => tick.text)).toEqual(['0 mm', '5', '10', '15', '20', '25'])
  expect(depthTicks(2.54, 'us').map((tick) => tick.text)).toEqual(['0 in', '¼', '½', '¾', '1'])
  expect(depth(8, 'us')).toBe('0.31 in')
})

// NIST Handbook 44, appendix C: 1 cup = 236.588 ml, 1 tbsp = 1/16 and 1 tsp = 1/48 of it; 1 lb = 453.59237 g
describe('what a US kitchen reads', () => {
  it('shows liquids in cups and spoons to the eighth', () => {
    const said = [236.6, 473.2, 118.3, 59.2, 44.4, 14.8, 2.46, 0].map((ml) => volume(ml, 'us'))
    expect(said).toEqual(['1 cup', '2 cups', '½ cup', '¼ cup', '3 tbsp', '1 tbsp', '½ tsp', '0 tsp'])
  })

  it('shows a dial by the surface and the weight that are counted there', () => {
    // by hand: 5 g on 100 cm2 are 5 / 28.35 x 6.4516 = 1.14 oz on 100 in2; 40 g/kg are 40 / 28.35 x 0.4536 = 0.64 oz/lb
    expect(setting(5, 'g/100 cm²', 'us')).toBe('1.1 oz/100 in²')
    expect(setting(0.5, 'g/100 cm² each time', 'us')).toBe('0.11 oz/100 in² each time')
    expect(setting(40, 'g/kg', 'us')).toBe('0.64 oz/lb')
    expect(setting(250, 'ml/kg', 'us')).toBe('0.48 cups/lb')
    expect(setting(0.7, '% of edible weight', 'us')).toBe('0.7 % of edible weight')
    expect(setting(5.128, 'g/100 cm²', 'metric')).toBe('5.13 g/100 cm²')
  })

  it('says depths of a sentence in inches', () => {
    const said = 'In 18 h salt reaches 8.0 mm; 22 % of it lies deeper than 5 mm.'
    expect(sentence(said, 'us')).toBe('In 18 h salt reaches 0.31 in; 22 % of it lies deeper than 0.20 in.')
    expect(sentence(said, 'metric')).toBe(said)
  })
})

it('degrees that a sentence says in one scale alone are told in the household’s', () => {
  const said = 'its centre stays at 60 °C; 54.4 °C (130 °F) is usual'
  expect(sentence(said, 'metric', 'F')).toBe('its centre stays at 140 °F; 54.4 °C (130 °F) is usual')
  expect(sentence(said, 'metric')).toBe(said)
  expect([difference(2.5, 'C'), difference(25, 'C'), difference(25, 'F')]).toEqual(['2.5 °C', '25 °C', '45 °F'])
})
