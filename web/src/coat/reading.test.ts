import { expect, it } from 'vitest'
import type { Schemas } from '../api/client'
import { fieldWords, inOrder, isOld, lastRead, wrongFields } from './reading'

type Out = Schemas['CoatReadingOut']
type Piece = Schemas['PieceDocument']
const error = (field: string) => ({ field, sentence: `${field}?`, code: 'invalid' })

it('shows layers in the order they are typed in, and cautions at them, where one was left out', () => {
  const out = {
    layers: [{ kind: 'pre-salt' }, { kind: 'rub' }],
    marks: [{ blend_name: 'salt' }, { blend_name: 'rub' }],
    places: [0, null, 1],
    cautions: [
      { id: 'a', layer: 1 },
      { id: 'b', layer: null },
    ],
    gives: 1,
  } as unknown as Out
  const found = inOrder(out)
  expect(found.layers.map((layer) => layer?.kind)).toEqual(['pre-salt', undefined, 'rub'])
  expect(found.marks.map((mark) => mark?.blend_name)).toEqual(['salt', undefined, 'rub'])
  expect(found.cautions.map((caution) => caution.layer)).toEqual([2, null])
  expect(found.gives).toBe(2)
})

it('remembers each piece as it was last read, and says what could not be', () => {
  const piece = (letter: string, mass: string) => ({ letter, mass }) as Piece
  const sent = [piece('A', '2 kg'), piece('B', 'heavy'), piece('C', '?')]
  const good = { errors: [], before: null } as unknown as Out
  const old = { errors: [error('mass')], before: piece('B', '1 kg') } as unknown as Out
  const before = lastRead(new Map([['D', piece('D', '3 kg')]]), sent, [good, old, null])
  expect([...before].map(([letter, one]) => `${letter} ${one.mass}`)).toEqual(['D 3 kg', 'A 2 kg', 'B 1 kg'])
  const saved = [error('pieces.2.mass'), error('pieces.0.mass'), error('name')]
  expect(wrongFields([good, old, null], saved)).toEqual({
    'pieces.1.mass': 'mass?',
    'pieces.2.mass': 'pieces.2.mass?',
    name: 'name?',
  })
})

it('tells which figures are from before, and names fields in words', () => {
  expect([isOld({ 'layers.1.dose': '?' }, 0), isOld({ 'layers.1.dose': '?' }, 1), isOld({ mass: '?' }, 0)]).toEqual([
    false,
    true,
    true,
  ])
  expect(isOld({}, 0)).toBe(false)
  expect(['mass', 'layers.2.hold', 'layers.0.injection.bore', 'stages.0.hold', 'surface'].map(fieldWords)).toEqual([
    'raw weight',
    'how long it is held',
    'bore',
    'before and after its layers',
    'surface',
  ])
})
