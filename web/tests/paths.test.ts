import { describe, expect, it } from 'vitest'

import { valueAt, without, withValue } from '../src/paths'

const piece = { top: { boards: [120, 130] }, height: 450 }

describe('a dotted path', () => {
  it('leads to its value, or to nothing', () => {
    expect(valueAt(piece, 'top.boards.1')).toBe(130)
    expect(valueAt(piece, 'top.hollow.depth')).toBeUndefined()
  })

  it('takes a value without touching what was there', () => {
    const made = withValue(piece, 'top.boards.0', 118)
    expect(made).toEqual({ top: { boards: [118, 130] }, height: 450 })
    expect(piece.top.boards[0]).toBe(120)
    expect(made.top).not.toBe(piece.top)
  })

  it('can be the whole', () => {
    expect(withValue<unknown>(piece, '', 5)).toBe(5)
  })
})

it('a record goes without one of its keys', () => {
  expect(without({ a: 1, b: 2 }, 'a')).toEqual({ b: 2 })
})
