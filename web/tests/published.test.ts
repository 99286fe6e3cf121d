import { describe, expect, it } from 'vitest'

import { labelOf, numberOf, published, startOf, toldOf, wordsOf } from '../src/fields/published'

const PIECE = {
  height: 430,
  top: { outline: { kind: 'oval' }, gap: null, upper_edge: { way: 'square' } },
  supports: [
    { kind: 'plane_frames', taper: { sides: 'inner' }, cross: [{ drop: 0 }, { drop: 200 }] },
    { kind: 'staked_legs', joint: { way: 'battened', peg: {} }, leg: {} },
    { kind: 'board_sides', lower: { upper_edge: { way: 'chamfer' } } },
  ],
}

describe('a field as the core publishes it', () => {
  it('is called by the model that stands there', () => {
    expect(published(PIECE, '', 'height')).toEqual({ at: 'height', label: 'Height' })
    expect(published(PIECE, 'supports.0', 'length').label).toBe('Over the legs')
    expect(published(PIECE, 'supports.1', 'joint.depth').label).toBe('Depth along the axis')
    expect(published(PIECE, 'supports.0.cross.1', 'depth').label).toBe('Deep')
  })
  it('is called otherwise within some parts', () => {
    expect(published(PIECE, '', 'top.upper_edge.way').label).toBe('Upper edge')
    expect(published(PIECE, 'supports.2', 'lower.upper_edge.way').label).toBe('Its edge')
    expect(published(PIECE, 'supports.1', 'joint.peg.entry').label).toBe('Peg below the top')
  })
  it('offers its words in the order of the core, numbers as numbers', () => {
    const sides = published(PIECE, 'supports.0', 'taper.sides')
    expect(sides.kind).toBe('choice')
    expect(sides.items?.map((one) => one.value)).toEqual(['inside', 'inner', 'outer', 'all'])
    const frames = published({ supports: [{ kind: 'mitred_frames' }] }, 'supports.0', 'frames')
    expect(frames.items?.[1]).toEqual({ value: 2, title: 'two, crossing' })
    expect(wordsOf('Top', 'outline')[0]).toEqual({ value: 'round', title: 'round' })
  })
  it('is given as what it is', () => {
    expect(published(PIECE, 'supports.0', 'links').kind).toBe('count')
    expect(published(PIECE, '', 'top.bark').kind).toBe('flag')
    expect(published(PIECE, 'supports.0', 'splay').kind).toBeUndefined()
  })
  it('is found within a part that is not there yet, where only one can be', () => {
    expect(published(PIECE, '', 'top.gap.width').label).toBe('Gap')
    expect(toldOf(PIECE, 'supports.0.nothing')).toBeUndefined()
    expect(() => published(PIECE, '', 'version')).toThrow('no label')
  })
  it('is published of the shop too', () => {
    const shop = { tools: [{ kind: 'band_saw', scale: {} }] }
    expect(published(shop, '', 'tools.0.scale.at_square', 'Shop').label).toBe('Gauge at square')
    expect(published(shop, '', 'tools.0.tallest', 'Shop').label).toBe('Cuts as high as')
    expect(labelOf('OwnedBit', 'diameter', 'Shop')).toBe('Bores')
  })
  it('is published of a build and of wood, with the limits of bare numbers', () => {
    expect(numberOf('Build', 'air_c', 'Build')).toEqual({
      label: 'Shop today, °C',
      least: -20,
      most: 60,
      above: false,
    })
    expect(numberOf('Build', 'open_min', 'Build')).toMatchObject({ least: 0, above: true })
    expect(startOf('Build', 'glue', 'Build')).toBe('yellow')
    expect(wordsOf('Build', 'glue', 'Build').map((one) => one.value)).toContain('slow')
    expect(labelOf('Log', 'bark', 'Pile')).toBe('Bark, thick')
    expect(() => numberOf('WoodChoice', 'kerf', 'WoodChoice')).toThrow('no limits')
  })
})
