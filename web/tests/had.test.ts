import { describe, expect, it } from 'vitest'

import type { Piece } from '../src/api/types'
import { withValue } from '../src/paths'
import { useHad } from '../src/piece/had'

const round = { kind: 'round', diameter: 340 }
const oval = { kind: 'oval', length: 400, width: 300 }
const piece = { top: { outline: round, hollow: null }, supports: [] } as unknown as Piece

describe('a part that becomes another kind', () => {
  it('is as it was when it becomes the first again, whatever was changed between', () => {
    const had = useHad()
    expect(had.again(piece, { what: 'outline', to: 'oval' })).toBeNull()
    const wider = withValue(piece, 'top.outline', oval)
    expect(had.again(wider, { what: 'outline', to: 'round' })).toEqual({
      path: 'top.outline',
      part: round,
    })
    expect(had.again(piece, { what: 'outline', to: 'oval' })?.part).toEqual(oval)
  })

  it('is worked out anew where it never was of that kind, or after another piece was opened', () => {
    const had = useHad()
    had.again(piece, { what: 'outline', to: 'oval' })
    had.forget()
    expect(
      had.again(withValue(piece, 'top.outline', oval), { what: 'outline', to: 'round' }),
    ).toBeNull()
  })

  it('is told from a part of another support, and from what is only said another way', () => {
    const had = useHad()
    const two = withValue(piece, 'supports', [
      { placement: { way: 'circle', radius: 100 } },
      { placement: { way: 'insets' } },
    ])
    had.again(two, { what: 'placement', to: 'insets', support: 0 })
    expect(had.again(two, { what: 'placement', to: 'circle', support: 1 })).toBeNull()
    expect(had.again(two, { what: 'angle', to: 'resultant' })).toBeNull()
  })
})
