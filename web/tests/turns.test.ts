import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'

interface Asked {
  params: { path: { id: string } }
}
interface Sent {
  params: { path: { id: string } }
  body: { document: Record<string, unknown>; based_on: number }
}
interface Workshop {
  document: Record<string, unknown>
  number: number
  took: unknown[]
  of: string[]
  layings: number
}
/** A workshop that takes a change only if it was made to what it has. */
const there = vi.hoisted((): Workshop => ({
  document: {},
  number: 0,
  took: [],
  of: [],
  layings: 0,
}))
const client = vi.hoisted(() => ({ PUT: vi.fn(), GET: vi.fn(), POST: vi.fn() }))
vi.mock('../src/api/client', async (real) => ({
  ...(await real<object>()),
  api: client,
  ask: (call: Promise<unknown>) => call,
}))
const { Refused } = await import('../src/api/client')
const { useWood } = await import('../src/timber/wood')
const { useBuild } = await import('../src/build/store')
const { inTurn } = await import('../src/inTurn')

const later = (): Promise<void> => new Promise((go) => setTimeout(go, 5))
const state = (): Record<string, unknown> => ({
  document: there.document,
  number: there.number,
  copy_number: 1,
  steps: [],
  reserved: false,
  stock: [],
  layout: { laid: [at('seat', 0), at('leg', 100)] },
})
const at = (key: string, x: number) => ({ key, number: 1, stock: 's', x, y: 0, turn: 0 })

beforeEach(() => {
  setActivePinia(createPinia())
  Object.assign(there, { document: {}, number: 0, took: [], of: [], layings: 0 })
  client.GET.mockImplementation(async (_: string, { params }: Asked) => {
    await later()
    // Nobody has done anything to the other piece yet.
    return params.path.id === 'one' ? state() : { ...state(), document: {}, number: 0 }
  })
  client.POST.mockImplementation(async () => {
    there.layings += 1
    await later()
    return state()
  })
  client.PUT.mockImplementation(async (_: string, { params, body }: Sent) => {
    await later()
    if (body.based_on !== there.number)
      throw new Refused({ status: 409, title: 'Changed', detail: 'Meanwhile.' } as never)
    Object.assign(there, { document: body.document, number: there.number + 1 })
    there.took.push(body.document)
    there.of.push(params.path.id)
    return state()
  })
})

describe('changes one after the other', () => {
  it('wait for the one before, and are not held up by one that fails', async () => {
    const turns = inTurn()
    const said: string[] = []
    const first = turns.next(async () => {
      await later()
      said.push('first')
      throw new Error('no')
    })
    const second = turns.next(() => Promise.resolve(said.push('second')))
    expect(turns.waiting()).toBe(2)
    await expect(first).rejects.toThrow('no')
    await second
    expect(said).toEqual(['first', 'second'])
    expect(turns.waiting()).toBe(0)
  })
})

describe('the wood of a piece', () => {
  it('keeps two choices made in quick succession, and lays out once', async () => {
    const wood = useWood()
    await wood.open('one')
    const pick = (id: string) => wood.choose(({ out_of: had = [] }) => ({ out_of: [...had, id] }))
    await Promise.all([pick('a'), pick('b')])
    expect(there.document).toEqual({ out_of: ['a', 'b'] })
    expect(wood.said.value).toBe('')
    expect(there.layings).toBe(2)
  })

  it('keeps where two parts were put down, the second before the first was heard of', async () => {
    const wood = useWood()
    await wood.open('one')
    const [seat, leg] = ['seat', 'leg'].map((key) => ({ key, number: 1 }) as never)
    await Promise.all([
      wood.putDown(seat as never, [5, 0, 0]),
      wood.putDown(leg as never, [7, 0, 0]),
    ])
    expect(there.document['laid']).toEqual([at('seat', 5), at('leg', 107)])
  })

  it('is laid out by the choice that was taken where the one after it was refused, and says why', async () => {
    const wood = useWood()
    await wood.open('one')
    const first = wood.choose(() => ({ kerf: 2 }))
    const problem = { status: 422, title: 'No', detail: 'Too wide.', faults: [] }
    const second = wood.choose(() => {
      client.PUT.mockRejectedValueOnce(new Refused(problem as never))
      return { kerf: 900 }
    })
    await Promise.all([first, second])
    expect(there.document).toEqual({ kerf: 2 })
    expect(there.layings).toBe(2)
    expect(wood.said.value).toBe('Too wide.')
  })

  it('that somebody else changed meanwhile is fetched, and takes the next choice', async () => {
    const wood = useWood()
    await wood.open('one')
    there.number = 4
    await wood.choose(() => ({ kerf: 2 }))
    expect(wood.said.value).toBe('Meanwhile.')
    await later()
    await later()
    await wood.choose(() => ({ kerf: 3 }))
    expect(there.took).toEqual([{ kerf: 3 }])
  })
})

describe('the order of work', () => {
  it('keeps two changes made in quick succession', async () => {
    const build = useBuild()
    await build.open('one')
    const skip = (key: string) =>
      build.change((own) => ({ skipped: [...(own.skipped ?? []), { key, why: '' }] }))
    expect(await Promise.all([skip('a'), skip('b')])).toEqual([true, true])
    expect(there.document['skipped']).toEqual([
      { key: 'a', why: '' },
      { key: 'b', why: '' },
    ])
  })

  it('of a piece that was left right after is changed all the same, and no other', async () => {
    const build = useBuild()
    await build.open('one')
    const first = build.change(() => ({ prefinish: true }))
    const second = build.change(() => ({ prefinish: false }))
    await build.open('two')
    expect(await Promise.all([first, second])).toEqual([true, true])
    expect(there.took).toEqual([{ prefinish: true }, { prefinish: false }])
    expect(there.of).toEqual(['one', 'one'])
    expect(build.id).toBe('two')
    expect(build.build?.document).toEqual({})
  })
})
