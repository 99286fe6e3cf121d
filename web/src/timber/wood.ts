import { ref, shallowRef } from 'vue'

import { api, ask, Away, Refused } from '../api/client'
import type { Carried, Laid, SlabPart, WoodChoice, WoodOut } from '../api/types'
import { inTurn } from '../inTurn'

const RETRY_MS = 1500

/** The wood of one piece: asked for, chosen, laid out (a first plan at once, then a better one), reserved. */
export function useWood() {
  const id = ref('')
  const wood = shallowRef<WoodOut>()
  const said = ref('')
  const faults = ref<Record<string, string>>({})
  /** Whether a better plan is still looked for. */
  const looking = ref(false)
  /** Where parts are while one is carried, and what is wrong with that; by slab. */
  const carried = shallowRef<{ stock: string; moved: Carried } | null>(null)
  let turn = 0
  let stop: AbortController | null = null

  async function doing(act: (mine: number) => Promise<void>): Promise<boolean> {
    const mine = (turn += 1)
    try {
      await act(mine)
      return true
    } catch (error) {
      if (mine !== turn || stop?.signal.aborted) return false
      if (error instanceof Away) said.value = 'The workshop does not answer: try it again.'
      else if (error instanceof Refused) {
        said.value = error.problem.faults?.length ? '' : error.problem.detail
        faults.value = Object.fromEntries(
          (error.problem.faults ?? []).map((f) => [f.field.replace(/^wood\./, ''), f.said]),
        )
        if (!said.value && !Object.keys(faults.value).some((k) => k))
          said.value = error.problem.detail
        const first = error.problem.faults?.[0]
        if (first && !SHOWN.includes(first.field.replace(/^wood\./, ''))) said.value = first.said
        // Somebody else changed it meanwhile: it is here now, to be looked at.
        if (error.problem.status === 409) void open(id.value)
      } else throw error
      return false
    }
  }
  const take = (mine: number, got: WoodOut): void => {
    if (mine !== turn) return
    wood.value = got
    carried.value = null
    faults.value = {}
    if (got.said) said.value = got.said
  }
  const path = (): { path: { id: string } } => ({ path: { id: id.value } })

  async function open(wanted: string): Promise<void> {
    if (id.value !== wanted) {
      id.value = wanted
      wood.value = undefined
      said.value = ''
    }
    const mine = (turn += 1)
    try {
      take(
        mine,
        await (ask(api.GET('/api/pieces/{id}/wood', { params: path() })) as Promise<WoodOut>),
      )
      if (mine === turn && wood.value && !wood.value.layout && !wood.value.reserved) await layOut()
    } catch (error) {
      if (mine !== turn) return
      if (error instanceof Away) {
        said.value = 'The workshop does not answer. Trying again.'
        setTimeout(() => mine === turn && void open(wanted), RETRY_MS)
      } else if (error instanceof Refused) said.value = error.problem.detail
      else throw error
    }
  }

  /** A first plan at once, and then the best there is time for; stopped, the first one holds. */
  async function layOut(): Promise<void> {
    cancel()
    said.value = ''
    const mine = stop
    await doing(async (turned) => {
      take(turned, await lay(0, mine))
      looking.value = true
      take(turned, await lay(1.6, mine))
    })
    if (mine === stop) looking.value = false
  }
  const lay = (seconds: number, mine: AbortController | null): Promise<WoodOut> =>
    ask(
      api.POST('/api/pieces/{id}/wood/layout', {
        params: path(),
        body: { seconds },
        ...(mine ? { signal: mine.signal } : {}),
      }),
    ) as Promise<WoodOut>
  function cancel(): void {
    stop?.abort()
    stop = new AbortController()
    looking.value = false
  }

  const turns = inTurn()
  /** Whether anything was changed since it was laid out. */
  let unlaid = false
  /** Change what is chosen; what was laid out is laid out anew, once nothing more is to be changed. */
  async function choose(how: (now: WoodChoice) => Partial<WoodChoice>): Promise<void> {
    const of = id.value
    cancel()
    const done = await turns.next(() => send(of, how))
    unlaid ||= done
    if (!unlaid || turns.waiting() || of !== id.value) return
    unlaid = false
    // One before it was taken and this one was not: what is wrong with it stands when that is laid out.
    const wrong = [said.value, faults.value] as const
    await layOut()
    if (!done) [said.value, faults.value] = wrong
  }

  async function send(of: string, how: (now: WoodChoice) => Partial<WoodChoice>): Promise<boolean> {
    const had = wood.value
    if (!had || of !== id.value) return false
    const document = { ...had.document, ...how(had.document) } as Record<string, unknown>
    return doing(async (mine) => {
      const body = { document, based_on: had.number }
      const got = await (ask(
        api.PUT('/api/pieces/{id}/wood', { params: path(), body }),
      ) as Promise<WoodOut>)
      if (mine !== turn) return
      // What was laid out stays in sight, and under the keys, until it is laid out anew.
      faults.value = {}
      wood.value = { ...got, layout: had.layout, stock: had.stock }
    })
  }

  /** Where every part lies by now, one of them moved. */
  function laidWith(part: SlabPart, by: [number, number, number]): Laid[] {
    // What was put down since it was laid out last lies where it was put down.
    const put = wood.value?.document.laid ?? []
    const laid = (wood.value?.layout?.laid ?? []).map(
      (one) => put.find((it) => it.key === one.key && it.number === one.number) ?? one,
    )
    return laid.map((one) => {
      if (one.key !== part.key || one.number !== part.number) return one
      const turn = ((((Number(one.turn ?? 0) + by[2] + 180) % 360) + 360) % 360) - 180
      const moved = { x: Number(one.x) + by[0], y: Number(one.y) + by[1], turn }
      return { ...one, ...rounded(moved) }
    })
  }
  const rounded = (at: { x: number; y: number; turn: number }) => ({
    x: Math.round(at.x * 10) / 10,
    y: Math.round(at.y * 10) / 10,
    turn: Math.round(at.turn * 100) / 100,
  })

  let asking = false
  let next: (() => Promise<void>) | null = null
  /** A part is carried: what is wrong is asked for one place after the other, the latest only. */
  async function carry(stock: string, part: SlabPart, by: [number, number, number]): Promise<void> {
    const laid = laidWith(part, by)
    const look = async (): Promise<void> => {
      try {
        const body = { laid, stock }
        const moved = await (ask(
          api.POST('/api/pieces/{id}/wood/moved', { params: path(), body }),
        ) as Promise<Carried>)
        if (next === null) carried.value = { stock, moved }
      } catch (error) {
        if (!(error instanceof Away || error instanceof Refused)) throw error
      }
    }
    next = look
    if (asking) return
    asking = true
    while (next) {
      const now: () => Promise<void> = next
      next = null
      await now()
    }
    asking = false
  }
  async function putDown(part: SlabPart, by: [number, number, number]): Promise<void> {
    next = null
    await choose(() => ({ laid: laidWith(part, by) }))
  }

  const act = (call: () => Promise<unknown>): Promise<boolean> => {
    cancel()
    said.value = ''
    return doing(async (mine) => {
      const got = (await call()) as WoodOut | undefined
      if (got) take(mine, got)
    })
  }
  const reserve = (): Promise<boolean> =>
    act(() => ask(api.PUT('/api/pieces/{id}/wood/reserved', { params: path() })))
  async function giveBack(): Promise<void> {
    const params = path()
    if (await act(() => ask(api.DELETE('/api/pieces/{id}/wood/reserved', { params }))))
      await open(id.value)
  }
  const sawn = (stock: string, undo: boolean): Promise<boolean> =>
    act(() => ask(api.PUT('/api/pieces/{id}/wood/sawn', { params: path(), body: { stock, undo } })))

  return {
    id,
    wood,
    said,
    faults,
    looking,
    carried,
    open,
    layOut,
    cancel,
    choose,
    carry,
    putDown,
    reserve,
    giveBack,
    sawn,
  }
}

/** What is chosen in fields that say themselves what is wrong. */
const SHOWN = ['kerf', 'trim', 'planing', 'keep', 'keep_wide', 'margin', 'home_c', 'home_rh']
