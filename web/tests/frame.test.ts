import { describe, expect, it } from 'vitest'

import type { View } from '../src/api/types'
import { stretched } from '../src/drawing/geometry'

type Box = View['box']
const FRAME: Box = [-100, -50, 100, 50]

describe('the frame of a drawing while something is held', () => {
  it('stays the very same as long as all is in it', () => {
    expect(stretched(FRAME, [-90, -50, 100, 40])).toEqual(FRAME)
  })

  it('goes out where something comes out, and only there, by more than what came out', () => {
    const [left, bottom, right, top] = stretched(FRAME, [-101, -50, 90, 40])
    expect(left).toBeLessThan(-101)
    expect([bottom, right, top]).toEqual([-50, 100, 50])
  })

  it('so that the next moves change nothing', () => {
    const once = stretched(FRAME, [-101, -52, 90, 40])
    expect(stretched(once, [-103, -54, 90, 40])).toEqual(once)
  })
})
