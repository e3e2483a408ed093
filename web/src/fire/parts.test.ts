import { describe, expect, it } from 'vitest'
import { inParts } from './parts'

describe('a file in parts', () => {
  it('is one part when it is short, its first row on line 2', () => {
    expect(inParts('\uFEFFat,celsius\r\n1,2\r\n3,4')).toEqual([{ text: 'at,celsius\n1,2\n3,4', first_line: 2 }])
  })
  it('has its head in each part, and each says which line its first row is', () => {
    const parts = inParts('at,celsius\na\nb\nc\nd\ne', 1000, 2)
    expect(parts.map((one) => one.text)).toEqual(['at,celsius\na\nb', 'at,celsius\nc\nd', 'at,celsius\ne'])
    expect(parts.map((one) => one.first_line)).toEqual([2, 4, 6])
  })
  it('is cut by size too, and nothing of it is lost', () => {
    const rows = Array.from({ length: 50 }, (_, at) => `row ${at}`)
    const parts = inParts(['head', ...rows].join('\n'), 60)
    expect(parts.length).toBeGreaterThan(4)
    expect(parts.flatMap((one) => one.text.split('\n').slice(1))).toEqual(rows)
    parts.forEach((one) => expect(rows[one.first_line - 2]).toBe(one.text.split('\n')[1]))
  })
  it('is an empty part when there is nothing in it', () => {
    expect(inParts('')).toEqual([{ text: '', first_line: 2 }])
  })
})
