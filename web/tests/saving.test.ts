import { beforeEach, describe, expect, it, vi } from 'vitest'

import type { Piece } from '../src/api/types'

const asked = vi.hoisted(() => ({ put: vi.fn() }))
vi.mock('../src/api/client', async (real) => ({
  ...(await real<object>()),
  api: { PUT: asked.put },
  ask: (call: Promise<unknown>) => call,
}))
const { useSaving } = await import('../src/piece/saving')
const { useOpen } = await import('../src/piece/open')
const { kept } = await import('../src/piece/kept')
const { Away, Refused } = await import('../src/api/client')

const refused = (status: number): Error =>
  new Refused({
    status,
    title: 'No',
    detail: '',
    faults: [{ field: 'name', said: 'too long' }],
  } as never)
const named = (name: string): Piece => ({ name }) as Piece

function opened() {
  const open = useOpen()
  open.id.value = 'one'
  open.piece.value = named('a')
  open.status.value = 'saved'
  let waits = false
  let held = false
  const putTogether = vi.fn(() => Promise.resolve())
  const saving = useSaving({
    open,
    pending: () => [],
    asked: () => waits,
    held: () => held,
    putTogether,
  })
  saving.at(3)
  const wait = (now: boolean): boolean => (waits = now)
  return { open, saving, putTogether, wait, hold: (now: boolean) => (held = now) }
}
const sent = (): { document: Piece; based_on: number }[] =>
  asked.put.mock.calls.map(([, { body }]) => body as { document: Piece; based_on: number })

describe('a changed piece', () => {
  beforeEach(() => {
    vi.resetAllMocks()
    vi.useFakeTimers()
    const there = new Map<string, string>()
    vi.stubGlobal('window', globalThis)
    vi.stubGlobal('localStorage', {
      getItem: (key: string) => there.get(key) ?? null,
      setItem: (key: string, value: string) => there.set(key, value),
      removeItem: (key: string) => there.delete(key),
    })
  })

  it('is kept in the browser at once, saved after a moment and then forgotten here', async () => {
    asked.put.mockResolvedValue({ revision: 4 })
    const { open, saving } = opened()
    saving.later()
    expect(open.status.value).toBe('saving')
    expect(kept('one')).toEqual({ piece: { name: 'a' }, pending: [], revision: 3 })
    expect(asked.put).not.toHaveBeenCalled()
    await vi.advanceTimersByTimeAsync(400)
    expect(sent()).toEqual([{ document: { name: 'a' }, based_on: 3 }])
    expect(open.status.value).toBe('saved')
    expect(saving.revision()).toBe(4)
    expect(kept('one')).toBeNull()
  })

  it.each([
    ['that is changed again', true],
    ['that became another one, whoever changed it,', false],
  ])('%s while it is saved is saved again, on what came of the first', async (_, told) => {
    let answer: (to: { revision: number }) => void = () => undefined
    asked.put.mockImplementationOnce(() => new Promise((go) => (answer = go)))
    asked.put.mockResolvedValueOnce({ revision: 5 })
    const { open, saving } = opened()
    saving.later()
    await vi.advanceTimersByTimeAsync(400)
    open.piece.value = named('b')
    if (told) saving.later()
    await vi.advanceTimersByTimeAsync(400)
    expect(sent()).toHaveLength(1)
    answer({ revision: 4 })
    await vi.advanceTimersByTimeAsync(800)
    expect(sent()[1]).toEqual({ document: { name: 'b' }, based_on: 4 })
    expect(open.status.value).toBe('saved')
  })

  it('is not called saved while something it was asked for is on its way', async () => {
    asked.put.mockResolvedValue({ revision: 4 })
    const { open, saving, wait } = opened()
    wait(true)
    saving.later()
    await vi.advanceTimersByTimeAsync(400)
    expect(open.status.value).toBe('saving')
    wait(false)
    saving.calm()
    expect(open.status.value).toBe('saved')
  })

  it('is not saved half dragged, but when it is let go', async () => {
    asked.put.mockResolvedValue({ revision: 4 })
    const { open, saving, hold } = opened()
    saving.later()
    hold(true)
    await vi.advanceTimersByTimeAsync(2000)
    expect(asked.put).not.toHaveBeenCalled()
    open.piece.value = named('b')
    hold(false)
    await vi.advanceTimersByTimeAsync(400)
    expect(sent()).toEqual([{ document: { name: 'b' }, based_on: 3 }])
    expect(open.status.value).toBe('saved')
  })

  it('is sent again until somebody answers', async () => {
    asked.put.mockRejectedValueOnce(new Away()).mockResolvedValueOnce({ revision: 4 })
    const { open, saving } = opened()
    saving.later()
    await vi.advanceTimersByTimeAsync(400)
    expect(open.status.value).toBe('away')
    await vi.advanceTimersByTimeAsync(1600)
    expect(sent()).toHaveLength(2)
    expect(open.status.value).toBe('saved')
  })

  it('is put together with what somebody else saved meanwhile', async () => {
    asked.put.mockRejectedValueOnce(refused(409))
    const { saving, putTogether } = opened()
    saving.later()
    await vi.advanceTimersByTimeAsync(400)
    expect(putTogether).toHaveBeenCalledWith(3)
    expect(kept('one')).not.toBeNull()
  })

  it('that is refused stays in the browser, with what is wrong', async () => {
    asked.put.mockRejectedValueOnce(refused(422))
    const { open, saving } = opened()
    saving.later()
    await vi.advanceTimersByTimeAsync(400)
    expect(open.status.value).toBe('unsaved')
    expect(open.faults.value['']).toMatchObject({ said: 'too long' })
    expect(kept('one')).not.toBeNull()
  })

  it('of a rehearsal is never sent and never kept', async () => {
    const { open, saving } = opened()
    open.rehearsal.value = { start: 'bench', seed: 1 }
    saving.later()
    await vi.advanceTimersByTimeAsync(2000)
    expect(asked.put).not.toHaveBeenCalled()
    expect(open.status.value).toBe('saved')
    expect(kept('one')).toBeNull()
  })

  it('of a piece that was left meanwhile changes nothing of the one that is open now', async () => {
    let answer: (to: { revision: number }) => void = () => undefined
    asked.put.mockImplementationOnce(() => new Promise((go) => (answer = go)))
    const { open, saving } = opened()
    saving.later()
    await vi.advanceTimersByTimeAsync(400)
    open.turned()
    saving.forget()
    saving.at(9)
    answer({ revision: 4 })
    await vi.advanceTimersByTimeAsync(10)
    expect(saving.revision()).toBe(9)
  })
})
