import { beforeEach, describe, expect, it, vi } from 'vitest'
import { ref, shallowRef } from 'vue'

import type { MergeOut, Piece, PieceOut } from '../src/api/types'

const asked = vi.hoisted(() => ({ post: vi.fn(), get: vi.fn() }))
vi.mock('../src/api/client', async (real) => ({
  ...(await real<object>()),
  api: { POST: asked.post, GET: asked.get },
  ask: (call: Promise<unknown>) => call,
}))
const { useTogether } = await import('../src/piece/together')
const { Away, Refused } = await import('../src/api/client')

const piece = (name: string): Piece => ({ name }) as Piece
const theirs = {
  piece: piece('theirs'),
  revision: 4,
  saved_by: 'wren',
  readings: [],
} as unknown as PieceOut
const both = (clashes: MergeOut['clashes'] = []): MergeOut => ({
  piece: piece('both'),
  says: 'height 450 mm → 470 mm',
  clashes,
})
const clash = { path: 'height', what: 'height', mine: '460 mm', theirs: '470 mm' }

describe('two changes of one piece', () => {
  const open = { id: ref('a'), piece: shallowRef<Piece | null>(null), adopt: vi.fn() }

  beforeEach(() => {
    vi.resetAllMocks()
    open.piece.value = piece('mine')
    asked.get.mockResolvedValue({ piece: piece('base') })
  })

  it('stand in one piece where they touch different things, and theirs is said', async () => {
    asked.post.mockResolvedValue(both())
    const together = useTogether(open)
    await together.bring(theirs, 3)
    expect(open.adopt).toHaveBeenCalledWith(piece('both'), theirs)
    expect(together.meanwhile.value).toEqual({ by: 'wren', says: 'height 450 mm → 470 mm' })
    expect(together.clashing.value).toBeNull()
  })

  it('are both shown where they clash, and the last choice makes the piece whole', async () => {
    const other = { ...clash, path: 'name' }
    asked.post.mockResolvedValue(both([clash, other]))
    const together = useTogether(open)
    await together.bring(theirs, 3)
    expect(open.adopt).not.toHaveBeenCalled()
    await together.pick('height', 'theirs')
    expect(open.adopt).not.toHaveBeenCalled()
    await together.pick('name', 'mine')
    const [, { body }] = asked.post.mock.lastCall as [string, { body: { take: string[] } }]
    expect(body.take).toEqual(['height'])
    expect(open.adopt).toHaveBeenCalledOnce()
    expect(together.clashing.value).toBeNull()
  })

  it('are chosen once more where nobody answered', async () => {
    asked.post.mockResolvedValueOnce(both([clash]))
    const together = useTogether(open)
    await together.bring(theirs, 3)
    asked.post.mockRejectedValueOnce(new Away('away'))
    await together.pick('height', 'mine')
    expect(together.clashing.value).not.toBeNull()
    expect(together.picks.value).toEqual({})
    asked.post.mockResolvedValueOnce(both())
    await together.pick('height', 'mine')
    expect(open.adopt).toHaveBeenCalledOnce()
  })

  it('are put together once more where something was done meanwhile', async () => {
    asked.post.mockImplementationOnce(() => {
      open.piece.value = piece('mine, typed on')
      return Promise.resolve(both())
    })
    asked.post.mockResolvedValueOnce(both())
    await useTogether(open).bring(theirs, 3)
    const [, { body }] = asked.post.mock.lastCall as [string, { body: { mine: Piece } }]
    expect(body.mine).toEqual(piece('mine, typed on'))
    expect(open.adopt).toHaveBeenCalledOnce()
  })

  it('are chosen between as wholes where nobody can read what they began from', async () => {
    const problem = { type: '', title: '', status: 422, detail: 'no', faults: [] }
    asked.get.mockRejectedValue(new Refused(problem))
    const together = useTogether(open)
    await together.bring(theirs, 3)
    expect(together.clashing.value?.clashes.map((one) => one.path)).toEqual([''])
    await together.pick('', 'theirs')
    expect(open.adopt).toHaveBeenCalledWith(theirs.piece, theirs)
    expect(asked.post).not.toHaveBeenCalled()
  })
})
