import { describe, expect, it } from 'vitest'

import type { StockOut } from '../src/api/types'
import { documentOf, draftOf, fresh } from '../src/timber/draft'
import { corners, outlineOf, roomOf, times } from '../src/timber/stock'

const quantity = (value: number, text: string) => ({ value, text, other: '', unit: 'mm' as const })
const board = (chosen: Record<string, ReturnType<typeof quantity>>): StockOut =>
  ({
    id: 'x',
    item: {
      kind: 'board',
      id: '',
      name: 'One',
      species: 'ash, white',
      length: 2460.37,
      width: 180,
      thickness: 52,
      cost: 12,
      moisture: 9.5,
      seen: [],
      flaws: [{ kind: 'knot', start: 100.4, end: 140, low: 10, high: 60 }],
    },
    chosen,
    number: 1,
    flaws: [],
    taken: [],
    left: [],
    photo: null,
  }) as unknown as StockOut

describe('a piece of wood as it is typed', () => {
  const read = {
    length: quantity(2460.37, '96 7/8"'),
    width: quantity(180, '7 3/32"'),
    thickness: quantity(52, '2 1/16"'),
    'flaws.0.start': quantity(100.4, '3 15/16"'),
    'flaws.0.end': quantity(140, '5 1/2"'),
    'flaws.0.low': quantity(10, '13/32"'),
    'flaws.0.high': quantity(60, '2 3/8"'),
  }

  it('sends what nobody touched as it was kept, not as it was rounded to be read', () => {
    const sent = documentOf(draftOf(board(read)))
    expect(sent['length']).toBe(2460.37)
    expect((sent['flaws'] as Record<string, unknown>[])[0]).toMatchObject({
      start: 100.4,
      high: 60,
    })
  })

  it('sends what was typed as typed, and leaves out what was emptied', () => {
    const draft = draftOf(board(read))
    draft.texts['width'] = '7 1/4'
    draft.texts['moisture'] = '9,5 %'
    draft.texts['cost'] = ''
    const sent = documentOf(draft)
    expect(sent['width']).toBe('7 1/4')
    expect(sent['moisture']).toBe('9,5 %')
    expect(sent).not.toHaveProperty('cost')
  })

  it('drops a row of flaws that nothing was typed into', () => {
    const draft = fresh('board', 'ash, white')
    draft.flaws.push({ kind: 'knot', start: '', end: '', low: '', high: '' })
    draft.flaws.push({ kind: 'split', start: '', end: '80', low: '', high: '' })
    expect(documentOf(draft)['flaws']).toEqual([{ kind: 'split', end: '80' }])
  })

  it('keeps thickness, flaws and outline of a slab where they were drawn', () => {
    const draft = fresh('slab', 'elm, American')
    draft.outline[0] = { x: -20, y: 5 }
    draft.thick.push({ at: { x: 10, y: 20 }, thickness: '48' })
    draft.spots.push({ id: '', kind: 'knot', points: [{ x: 9, y: 9 }], across: '', area: false })
    const sent = documentOf(draft)
    expect((sent['outline'] as unknown[])[0]).toEqual({ x: -20, y: 5 })
    expect(sent['thick']).toEqual([{ at: { x: 10, y: 20 }, thickness: '48' }])
    // What nobody measured is the core's to say.
    expect((sent['spots'] as Record<string, unknown>[])[0]?.['across']).toBeUndefined()
  })
})

describe('wood as it is drawn', () => {
  it('has its far edge up and its room in millimetres', () => {
    const outline = outlineOf(board({}).item)
    expect(corners(outline)).toContain('0,0')
    expect(corners(outline)).toContain('2460.37,-180')
    expect(roomOf(outline)).toEqual({ x: 0, y: 0, width: 2460.37, height: 180 })
  })

  it('says a unit that all share once, and fractions as they are', () => {
    expect(times([{ text: '10 mm' }, { text: '20.5 mm' }])).toBe('10 × 20.5 mm')
    expect(times([{ text: '1 1/2"' }, { text: '3"' }])).toBe('1 1/2" × 3"')
  })
})
