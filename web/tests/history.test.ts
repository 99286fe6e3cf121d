import { describe, expect, it } from 'vitest'

import type { Piece } from '../src/api/types'
import { type PieceStep, type ReadingStep, useHistory } from '../src/piece/history'

const piece = (name: string): Piece => ({ name }) as Piece
const step = (at: number, says = `step ${at}`): PieceStep => ({
  kind: 'piece',
  at,
  station: 'stance',
  says,
  before: piece(`before ${at}`),
  after: piece(`after ${at}`),
})
const reading = (at: number): ReadingStep => ({
  kind: 'reading',
  at,
  station: 'boring',
  says: `reading ${at}`,
  proof: 'bore.l1',
  copy: 1,
  before: null,
  after: { typed: '14.2', tool: '', note: '', sure: false },
})

describe('what was done', () => {
  it('is taken back last first, whatever kind it is, and done again in its order', () => {
    const history = useHistory()
    for (const one of [step(1), reading(2), step(3)]) history.record(one)
    expect([history.back(), history.back(), history.back()].map((s) => s?.at)).toEqual([3, 2, 1])
    expect(history.back()).toBeUndefined()
    expect([history.forth(), history.forth(), history.forth()].map((s) => s?.at)).toEqual([1, 2, 3])
    expect(history.forth()).toBeUndefined()
  })

  it('stands where it was made, though its answer comes late', () => {
    const history = useHistory()
    history.record(reading(2))
    history.record(step(1))
    expect(history.last.value?.at).toBe(2)
  })

  it('is forgotten to be done again once something new is done', () => {
    const history = useHistory()
    history.record(step(1))
    history.back()
    expect(history.next.value?.at).toBe(1)
    history.record(step(2))
    expect(history.next.value).toBeUndefined()
    expect(history.last.value?.at).toBe(2)
  })

  it('is struck where it was refused, also after it was taken back', () => {
    const history = useHistory()
    const [one, two] = [reading(1), reading(2)]
    history.record(one)
    history.record(two)
    history.strike(one)
    expect(history.last.value).toBe(two)
    history.back()
    history.strike(two)
    expect(history.next.value).toBeUndefined()
  })

  it('is one step while one value is turned, and another after a pause or of another value', () => {
    const history = useHistory()
    const turned = (at: number, of: string, when: number): PieceStep => ({ ...step(at), of, when })
    history.record(turned(1, 'height', 1000))
    history.record({ ...turned(2, 'height', 1400), before: piece('before 1') })
    history.record(turned(3, 'height', 9000))
    history.record(turned(4, 'top.thickness', 9100))
    history.record(step(5))
    const ats = []
    for (let one = history.back(); one; one = history.back()) ats.push(one.at)
    expect(ats).toEqual([5, 4, 3, 2])
  })

  it('is still one step where each answer is slow to come', () => {
    const history = useHistory()
    const slow = (at: number, when: number): PieceStep => ({
      ...step(at),
      of: 'height',
      when,
      seen: when + 2500,
    })
    history.record(slow(1, 1000))
    history.record(slow(2, 4000))
    history.record(slow(3, 9000))
    const ats = []
    for (let one = history.back(); one; one = history.back()) ats.push(one.at)
    expect(ats).toEqual([3, 2])
  })

  it('keeps two hundred steps', () => {
    const history = useHistory()
    for (let at = 1; at <= 230; at += 1) history.record(step(at))
    let count = 0
    while (history.back()) count += 1
    expect(count).toBe(200)
  })
})
