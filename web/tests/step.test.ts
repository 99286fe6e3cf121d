import { describe, expect, it } from 'vitest'

import { stepped } from '../src/fields/step'

describe('a step of a value', () => {
  it.each([
    ['450 mm', 1, false, '451 mm'],
    ['450 mm', -1, false, '449 mm'],
    ['451.3 mm', 1, false, '452 mm'],
    ['451.3 mm', -1, false, '451 mm'],
    ['450 mm', 1, true, '460 mm'],
    ['14.0°', 1, false, '14.5 °'],
    ['-3.5°', -1, false, '-4 °'],
    ['17 1/2"', 1, false, '17.5625 "'],
    ['3/4"', -1, false, '0.6875 "'],
    ['0"', -1, false, '-0.0625 "'],
    ['17 1/2"', 1, true, '18 "'],
  ] as const)('%s, %d: %s', (text, way, coarse, wanted) => {
    expect(stepped(text, way, coarse)).toBe(wanted)
  })

  it.each(['', 'steep', '42 mm, 43 mm', '450', '1/0"'])('of %j there is none', (text) => {
    expect(stepped(text, 1, false)).toBeNull()
  })
})
