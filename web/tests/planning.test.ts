import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { ref } from 'vue'

import type { Drawings, Move, Piece, Plan } from '../src/api/types'

const asked = vi.hoisted(() => ({ post: vi.fn() }))
vi.mock('../src/api/client', async (real) => ({
  ...(await real<object>()),
  api: { POST: asked.post },
  ask: (call: Promise<unknown>) => call,
}))
vi.mock('../src/shop/store', () => ({ useShop: () => ({ system: 'metric' }) }))
const { usePlanning } = await import('../src/piece/planning')
const { useLooking } = await import('../src/piece/looking')
const { useOpen } = await import('../src/piece/open')
const { Away, Refused } = await import('../src/api/client')

interface Sent {
  piece: Record<string, unknown>
  moves: unknown[]
  restate: unknown[]
  live: boolean
  opened: Record<string, unknown> | null
}
/** One request: what was sent, and how it is answered. */
interface Call {
  sent: Sent
  answer: (piece?: Record<string, unknown>, stations?: string[]) => Promise<void>
  fail: (error: Error) => Promise<void>
}
const settled = async (): Promise<void> => {
  for (let k = 0; k < 8; k += 1) await Promise.resolve()
}

/** A piece on the bench, with everything planning calls for written down. */
function opened(piece: Record<string, unknown> = { name: 'a', height: 400 }) {
  const calls: Call[] = []
  asked.post.mockImplementation((_: string, { body }: { body: Sent }) => {
    return new Promise((resolve, reject) => {
      calls.push({
        sent: body,
        answer: async (made = body.piece, stations = ['top']) => {
          const plan = { stations, proofs: [], name: made['height'] } as unknown as Plan
          resolve({
            piece: made,
            plan,
            drawings: {} as Drawings,
            says: 'height',
          })
          await settled()
        },
        fail: async (error) => {
          reject(error)
          await settled()
        },
      })
    })
  })
  const open = useOpen()
  open.piece.value = piece as unknown as Piece
  open.status.value = 'saved'
  const looking = useLooking(open)
  const steps: { before: Piece; after: Piece; at: number }[] = []
  const saving = { later: vi.fn(), calm: vi.fn(), remember: vi.fn() }
  const readings = { told: () => [], readings: ref([]), drop: vi.fn() }
  const planning = usePlanning({
    open,
    looking,
    readings: () => readings as never,
    last: () => undefined,
    record: (step) => steps.push(step),
    saving,
  })
  return { open, looking, planning, saving, steps, calls }
}
const call = (calls: Call[], k: number): Call => {
  const one = calls[k]
  if (!one) throw new Error(`no request ${k + 1}`)
  return one
}
const foot = { moves: 'foot', view: 'front', leg: 1, to: [1, 2] } as unknown as Move
const top = { moves: 'height', view: 'front', leg: 0, to: [0, 8] } as unknown as Move
const tall = (piece: Piece): unknown => (piece as unknown as Record<string, unknown>)['height']

describe('what is typed or dragged', () => {
  beforeEach(() => vi.resetAllMocks())

  it('is asked one request at a time; what was typed meanwhile goes with the next', async () => {
    const { planning, calls, steps, saving } = opened()
    planning.set('height', '450')
    planning.set('name', 'b')
    expect(calls).toHaveLength(1)
    expect(call(calls, 0).sent.piece['height']).toBe('450')
    expect(planning.waits('name')).toBe(true)
    await call(calls, 0).answer({ name: 'a', height: 450 })
    expect(calls).toHaveLength(2)
    expect(call(calls, 1).sent.piece).toEqual({ name: 'b', height: 450 })
    await call(calls, 1).answer()
    expect(planning.asked.value).toBe(false)
    expect(steps.map((step) => step.after)).toEqual([
      { name: 'a', height: 450 },
      { name: 'b', height: 450 },
    ])
    expect(saving.later).toHaveBeenCalledTimes(2)
  })

  it('is set aside with its fault where it cannot be; what was typed beside it stands', async () => {
    const { open, planning, calls } = opened()
    planning.set('name', 'b')
    planning.set('height', 'high')
    await call(calls, 0).answer({ name: 'b', height: 400 })
    const problem = {
      status: 422,
      title: 'No length',
      detail: '',
      faults: [{ field: 'piece.height' }],
    }
    await call(calls, 1).fail(new Refused(problem as never))
    expect(open.faults.value['height']).toMatchObject({ field: 'height', got: 'No length' })
    expect(open.piece.value).toEqual({ name: 'b', height: 400 })
    expect(planning.asked.value).toBe(false)
    planning.set('height', '410')
    expect(open.faults.value).toEqual({})
  })

  it('waits behind a drag: it would be undone by the answer to that', async () => {
    const { planning, calls } = opened()
    planning.drag(foot, false)
    planning.drag({ ...foot, to: [5, 6] }, true)
    planning.set('name', 'b')
    await call(calls, 0).answer({ name: 'a', height: 410 })
    expect(call(calls, 1).sent.moves).toEqual([{ ...foot, to: [5, 6] }])
    expect(call(calls, 1).sent.piece['name']).toBe('a')
    await call(calls, 1).answer({ name: 'a', height: 420 })
    expect(call(calls, 2).sent).toMatchObject({ moves: [], piece: { name: 'b', height: 420 } })
  })

  it('while a handle is held is no step and asks for no cards; the story stick stays', async () => {
    const { looking, planning, calls, steps } = opened()
    planning.replan()
    await call(calls, 0).answer(undefined, ['top', 'boring'])
    planning.drag(foot, false)
    expect(call(calls, 1).sent.live).toBe(true)
    await call(calls, 1).answer({ name: 'a', height: 410 }, [])
    expect(steps).toEqual([])
    expect(looking.plan.value?.stations).toEqual(['top', 'boring'])
    planning.drag(foot, true)
    expect(call(calls, 2).sent.live).toBe(false)
    await call(calls, 2).answer({ name: 'a', height: 410 })
    expect(steps).toHaveLength(1)
    expect(steps[0]?.before).toEqual({ name: 'a', height: 400 })
  })

  it('is a step of its own where a second handle is taken before the first is understood', async () => {
    const { planning, calls, steps, saving } = opened()
    planning.drag(foot, false)
    planning.drag({ ...foot, to: [5, 6] }, true)
    await call(calls, 0).answer({ name: 'a', height: 410 })
    // The first, let go, is on its way; the second is taken meanwhile and comes to rest where it is.
    planning.drag(top, false)
    await call(calls, 1).answer({ name: 'a', height: 420 })
    await call(calls, 2).answer({ name: 'a', height: 430 })
    planning.drag(top, true)
    await call(calls, 3).answer({ name: 'a', height: 430 })
    const heights = steps.map(({ before, after }) => [before, after].map(tall))
    expect(heights).toEqual([
      [400, 420],
      [420, 430],
    ])
    expect(saving.later).toHaveBeenCalledTimes(2)
  })

  it('goes along with what was let go before it and not asked yet: no drag is lost over another', async () => {
    const { planning, calls, steps } = opened()
    planning.drag(foot, false)
    planning.drag({ ...foot, to: [5, 6] }, true)
    planning.drag(top, false)
    planning.drag({ ...top, to: [0, 9] }, true)
    await call(calls, 0).answer()
    const to = [
      { ...foot, to: [5, 6] },
      { ...top, to: [0, 9] },
    ]
    expect(call(calls, 1).sent.moves).toEqual(to)
    await call(calls, 1).answer({ name: 'a', height: 430 })
    expect(calls).toHaveLength(2)
    expect(planning.asked.value).toBe(false)
    expect(steps.map(({ before, after }) => [before, after].map(tall))).toEqual([[400, 430]])
  })

  it('goes in as many requests as it takes, and is one step', async () => {
    const { planning, calls, steps } = opened()
    planning.set('name', 'b')
    for (let leg = 1; leg <= 11; leg += 1) planning.drag({ ...foot, leg }, true)
    await call(calls, 0).answer()
    expect(call(calls, 1).sent.moves).toHaveLength(8)
    expect(call(calls, 1).sent.live).toBe(true)
    await call(calls, 1).answer({ name: 'b', height: 401 })
    expect(call(calls, 2).sent.moves).toHaveLength(3)
    await call(calls, 2).answer({ name: 'b', height: 402 })
    expect(steps.map(({ before, after }) => [before, after].map(tall))).toEqual([
      [400, 400],
      [400, 402],
    ])
  })

  it('is kept and asked again while nobody answers', async () => {
    vi.useFakeTimers()
    const { open, planning, calls, saving } = opened()
    planning.set('height', '450')
    await call(calls, 0).fail(new Away())
    expect(open.status.value).toBe('away')
    expect(saving.remember).toHaveBeenCalled()
    await vi.advanceTimersByTimeAsync(2000)
    expect(call(calls, 1).sent.piece['height']).toBe('450')
    await call(calls, 1).answer({ name: 'a', height: 450 })
    expect(open.status.value).toBe('saving')
    vi.useRealTimers()
  })

  it('is answered too late once something was taken back, or another piece is open', async () => {
    const { open, planning, calls, steps } = opened()
    planning.set('height', '450')
    expect(planning.dropWaiting()).toBe(true)
    await call(calls, 0).answer({ name: 'a', height: 450 })
    expect(open.piece.value).toEqual({ name: 'a', height: 400 })
    await call(calls, 1).answer()
    planning.set('height', '460')
    open.turned()
    open.piece.value = { name: 'other' } as unknown as Piece
    await call(calls, 2).answer({ name: 'a', height: 460 })
    expect(open.piece.value).toEqual({ name: 'other' })
    expect(steps).toEqual([])
  })
})

describe('what a station showed', () => {
  it('is there at once when it is turned to again, and old once something was changed', async () => {
    vi.resetAllMocks()
    const { open, looking, planning, calls } = opened()
    planning.replan()
    await call(calls, 0).answer()
    open.station.value = 'top'
    planning.again()
    await call(calls, 1).answer({ name: 'a', height: 401 })
    expect(looking.turned.value).toBe('top')
    looking.turnTo('stance')
    expect(looking.turned.value).toBe('stance')
    planning.set('height', '500')
    looking.turned.value = 'top'
    looking.turnTo('stance')
    expect(looking.turned.value).toBe('top')
  })
})

describe('what of a station is looked at', () => {
  beforeEach(() => {
    vi.resetAllMocks()
    vi.useFakeTimers()
  })
  afterEach(() => vi.useRealTimers())

  /** Legs, answered with one card of two. */
  async function legs() {
    const all = opened()
    all.open.station.value = 'legs'
    all.planning.replan()
    await call(all.calls, 0).answer()
    const plan = { ...all.looking.plan.value, setups: [{ id: 'a' }] } as unknown as Plan
    all.looking.answered('legs', plan, { layout: [], sticks: [], marks: [] } as never, false)
    return all
  }

  it('is asked for when it has not come, once, with the tool used last', async () => {
    localStorage.setItem('proud-rake.tool.legs', 't3')
    const { planning, calls } = await legs()
    expect(call(calls, 0).sent.opened).toMatchObject({ card: '', by: 't3' })
    planning.opens({ card: 'a' })
    expect(calls).toHaveLength(1)
    planning.opens({ card: 'b' })
    expect(calls).toHaveLength(2)
    expect(call(calls, 1).sent.opened).toMatchObject({ card: 'b', step: 0 })
    localStorage.clear()
  })

  it('is followed by the rest when nothing more is done for a while', async () => {
    const { planning, calls, steps } = await legs()
    await vi.advanceTimersByTimeAsync(1000)
    planning.opens({ part: 'x' })
    await call(calls, 1).answer()
    await vi.advanceTimersByTimeAsync(1400)
    expect(calls).toHaveLength(2)
    await vi.advanceTimersByTimeAsync(200)
    expect(call(calls, 2).sent.opened).toBeNull()
    // Not heard, nobody is told: it was a courtesy.
    await call(calls, 2).fail(new Away())
    await vi.advanceTimersByTimeAsync(5000)
    expect(calls).toHaveLength(3)
    expect(steps).toEqual([])
  })

  it('is all of it at the bench, and what was left out before comes when that is come to', async () => {
    const { planning, calls } = await legs()
    planning.wholly(true)
    expect(call(calls, 1).sent.opened).toBeNull()
    await call(calls, 1).answer()
    planning.replan()
    expect(call(calls, 2).sent.opened).toBeNull()
    await call(calls, 2).answer()
    planning.wholly(false)
    planning.replan()
    expect(call(calls, 3).sent.opened).not.toBeNull()
  })
})
