import { expect, it } from 'vitest'
import { differences } from './differences'

it('names each field that differs, with both sides', () => {
  const mine = { name: 'Rub', lines: [{ grind: 'salt', parts: '2' }], batch: '60 g' }
  const theirs = {
    name: 'Rub',
    lines: [
      { grind: 'salt', parts: '3' },
      { grind: 'pepper', parts: '1' },
    ],
    batch: '60 g',
  }
  expect(differences(mine, theirs)).toEqual([
    { field: 'lines 1 parts', mine: '2', theirs: '3' },
    { field: 'lines 2', mine: 'nothing', theirs: 'pepper, 1' },
  ])
  expect(differences(mine, structuredClone(mine))).toEqual([])
})
