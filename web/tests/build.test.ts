import { beforeEach, describe, expect, it } from 'vitest'

import type { BuildOut, BuildStep } from '../src/api/types'
import { keepRun, keptRun } from '../src/build/glueRun'
import { count, long } from '../src/build/long'
import { withDeeds } from '../src/build/overlay'
import { keepDeeds, keptDeeds, type Waiting } from '../src/build/queue'

const unit = (of: string, done = false) => ({
  key: 'bore.l1',
  operation: 'bore',
  of,
  name: of,
  done,
})
const step = (change: Partial<BuildStep> = {}): BuildStep =>
  ({
    key: 'bore.l1',
    state: 'open',
    since: null,
    seconds: 0,
    units: [unit('l1'), unit('l2')],
    ...change,
  }) as BuildStep
const build = (one: BuildStep): BuildOut => ({ copy_number: 1, steps: [one] }) as BuildOut
const deed = (what: Waiting['what'], body: object): Waiting =>
  ({ what, body: { step: 'bore.l1', copy_number: 1, ...body }, at: 1000, token: 't' }) as Waiting

describe('what was done and is not told yet', () => {
  it('holds at once: one leg begins a step, both end it and its timer', () => {
    const named = [{ key: 'bore.l1', operation: 'bore', of: 'l1' }]
    const begun = withDeeds(build(step({ since: 'now' })), [deed('done', { units: named })])
    expect(begun[0]).toMatchObject({ state: 'begun', since: 'now' })
    const done = withDeeds(build(step({ since: 'now' })), [deed('done', { units: [] })])
    expect(done[0]).toMatchObject({ state: 'done', since: null })
  })

  it('is taken back in its turn', () => {
    const deeds = [deed('done', { units: [] }), deed('undone', { units: [] })]
    expect(withDeeds(build(step()), deeds)[0]).toMatchObject({ state: 'open' })
  })

  it('is of one copy and one step alone', () => {
    const other = [
      deed('done', { units: [], copy_number: 2 }),
      deed('done', { units: [], step: 'x' }),
    ]
    expect(withDeeds(build(step()), other)[0]).toMatchObject({ state: 'open' })
  })

  it('starts and stops a timer, which keeps what it counted', () => {
    const run = deed('timer', { run: true })
    expect(withDeeds(build(step()), [run])[0]?.since).toBe('1970-01-01T00:00:01.000Z')
    const stop = deed('timer', { run: false, seconds: 12 })
    expect(withDeeds(build(step({ seconds: 5 })), [run, stop])[0]).toMatchObject({
      since: null,
      seconds: 17,
    })
  })
})

describe('what waits in this browser', () => {
  beforeEach(() => localStorage.clear())

  it('comes back as it was, for its own piece', () => {
    const deeds = [deed('done', { units: [] })]
    expect(keepDeeds('a', deeds)).toBe(true)
    expect(keptDeeds('a')).toEqual(deeds)
    expect(keptDeeds('b')).toEqual([])
    keepDeeds('a', [])
    expect(localStorage.length).toBe(0)
  })

  it('is nothing where it cannot be read, and a full browser says so', () => {
    localStorage.setItem('proud-rake.deeds.a', '{')
    localStorage.setItem('proud-rake.gluing.a', '{')
    expect(keptDeeds('a')).toEqual([])
    expect(keptRun('a')).toBeNull()
    const run = { sitting: 1, copy: 1, dry: true, begun: 5, closed: ['home' as const] }
    keepRun('a', run)
    expect(keptRun('a')).toEqual(run)
    keepRun('a', null)
    expect(keptRun('a')).toBeNull()
  })
})

describe('times in words', () => {
  it('says minutes, and hours from sixty on', () => {
    expect([long(0.4), long(59), long(60), long(135.4)]).toEqual([
      '0 min',
      '59 min',
      '1 h',
      '2 h 15 min',
    ])
  })

  it('counts as a clock does', () => {
    expect([count(-3), count(67.9), count(3750)]).toEqual(['0:00', '1:07', '1:02:30'])
  })
})
