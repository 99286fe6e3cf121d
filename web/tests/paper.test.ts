import { describe, expect, it } from 'vitest'

import { toolsUsed, wishes } from '../src/paper/paper'

describe('what is asked with every sheet', () => {
  it('leaves out what is not wished', () => {
    expect(wishes({ copy_number: 1, day: '', sorts: '' })).toBe('?copy_number=1')
    expect(wishes({ day: '', pattern: '' })).toBe('')
  })
  it('keeps what has signs of an address in it apart', () => {
    expect(wishes({ pattern: 'a&b=c/d', sorts: 'top,legs' })).toBe(
      '?pattern=a%26b%3Dc%2Fd&sorts=top%2Clegs',
    )
  })
})

describe('the tools used last', () => {
  it('names each once, wherever it was used', () => {
    const kept = new Map([
      ['proud-rake.tool.boring', 't2'],
      ['proud-rake.tool.legs', 't9'],
      ['proud-rake.tool.stretchers', 't2'],
      ['proud-rake.theme', 'dark'],
    ])
    const storage = {
      ...Object.fromEntries(kept),
      getItem: (key: string) => kept.get(key) ?? null,
    } as unknown as Storage
    expect(toolsUsed(storage)).toBe('t2,t9')
  })
})
