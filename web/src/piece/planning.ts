import { computed, ref, shallowRef } from 'vue'

import { api, ask, Away, Refused } from '../api/client'
import type { Fault, Move, Piece, PlanOut, Restate } from '../api/types'
import { withValue, without } from '../paths'
import { useShop } from '../shop/store'
import { useHad } from './had'
import { goesOn, type PieceStep, type Step } from './history'
import { lastTool, type Looking, type Opened } from './looking'
import { type Open, RETRY_MS, same } from './open'

const REST_MS = 1500
/** As many drags as one request takes. */
const MOST_MOVES = 8
import type { useReadings } from './readings'

interface Edit {
  path: string
  value: unknown
  /** Whether it is one of many steps of a value that is being turned. */
  turning?: boolean
  /** When it was made, among edits, drags and choices. */
  at: number
}
/** All that one request takes along, and what tells whether its answer is still of use. */
interface Batch {
  turn: number
  steps: number
  edits: Edit[]
  moved: Move[]
  restated: Restate[]
  /** Whether nothing is held any more. */
  final: boolean
  /** The value that is being turned, if that is all; and when. */
  of: string
  when: number
  /** The piece before it was touched. */
  old: Piece
  changing: boolean
  /** Whether all of the station is asked for, not only what is looked at. */
  whole: boolean
}
const sameHandle = (one: Move, other: Move): boolean =>
  one.moves === other.moves && one.leg === other.leg && one.view === other.view
type Told = Pick<PieceStep, 'at' | 'says' | 'of' | 'when' | 'seen'>

/** What planning needs of the open piece. */
interface Needs {
  open: Open
  looking: Looking
  readings: () => Pick<ReturnType<typeof useReadings>, 'told' | 'readings' | 'drop'>
  last: () => Step | undefined
  /** A change was understood: a step to be taken back. */
  record: (step: PieceStep) => void
  saving: { later: () => void; calm: () => void; remember: () => void }
}

/**
 * What is typed, dragged or chosen becomes pending at once; one request at a time turns it into the
 * workshop's reading of the piece and its plan. What the workshop cannot use is set aside with its fault;
 * what it cannot hear is kept and asked again.
 */
export function usePlanning({ open, looking, readings, last, record, saving }: Needs) {
  const { piece, faults, status, station, rehearsal } = open
  const had = useHad()
  /** What was typed or chosen and is not worked out yet. */
  const pending = shallowRef<Edit[]>([])
  /** Where handles were dragged to, in the order they were taken. */
  const moves = shallowRef<Move[]>([])
  const said = shallowRef<Restate[]>([])
  /** Whether a handle is held. */
  const moving = ref(false)
  /** The piece before what is held, or was let go and not understood yet, was taken. */
  let before: Piece | null = null
  let flying = false
  let stale = false
  /** Whether what was left out of the last answer is asked for now. */
  let rest = false
  let later: ReturnType<typeof setTimeout> | undefined
  let movedAt = 0
  let saidAt = 0

  const asked = computed(() => pending.value.length + said.value.length + moves.value.length > 0)
  /** Whether what was typed at a path is not worked out yet. */
  const waits = (path: string): boolean => pending.value.some((edit) => edit.path === path)

  function forget(): void {
    had.forget()
    pending.value = []
    said.value = []
    moves.value = []
    before = null
    flying = stale = rest = moving.value = false
    clearTimeout(later)
  }

  /** What was typed in an earlier sitting and never worked out. */
  function resume(edits: Omit<Edit, 'at'>[]): void {
    pending.value = edits.map((edit) => ({ ...edit, at: 0 }))
  }

  /** Put a value, typed or chosen, at a place of the piece. */
  function set(path: string, value: unknown, turning = false): void {
    const others = pending.value.filter((edit) => edit.path !== path)
    pending.value = [...others, { path, value, turning, at: open.next() }]
    drop(path)
    saving.remember()
    open.busy()
    replan()
  }

  /** Say one thing another way: the server knows how, and keeps the piece as it is. */
  function restate(wish: Pick<Restate, 'what' | 'to'> & Partial<Restate>): void {
    const was = piece.value && had.again(asTyped(piece.value, pending.value), wish)
    if (was) {
      set(was.path, was.part)
      return
    }
    if (!said.value.length) saidAt = open.next()
    said.value = [...said.value, { support: 0, leg: 0, measured_from: '', ...wish }]
    open.busy()
    replan()
  }

  /** A handle is being dragged; `final` when it is let go. */
  function drag(to: Move, final: boolean): void {
    before ??= piece.value
    moving.value = !final
    if (!moves.value.length) movedAt = open.next()
    // Another handle may be taken before the one let go was heard of: neither is forgotten over the other.
    const held = moves.value.at(-1)
    const others = held && sameHandle(held, to) ? moves.value.slice(0, -1) : moves.value
    moves.value = [...others, to]
    open.busy()
    replan()
  }

  /** The piece with what was typed and is not worked out yet. */
  function asTyped(of: Piece, edits: Edit[]): Piece {
    return edits.reduce((made, edit) => withValue(made, edit.path, edit.value), of)
  }

  function replan(): void {
    looking.othersAreOld()
    again()
  }

  function again(): void {
    clearTimeout(later)
    rest = false
    stale = true
    if (!flying) void fly()
  }

  /** Something else of the station is looked at: asked for where it has not come yet. */
  function opens(what: Partial<Opened>): void {
    Object.assign(looking.opened, what)
    if (!looking.here(what)) again()
  }

  /** At the bench everything is asked for at once, and what is missing when it is come to. */
  function wholly(on: boolean): void {
    looking.whole.value = on
    if (on && looking.plan.value) again()
  }

  /** When nothing more is done for a while, the rest of the station comes too: it is there at once then,
   * and when the workshop cannot be heard. */
  function restLater(batch: Batch): void {
    clearTimeout(later)
    if (batch.whole || station.value === 'stance') return
    later = setTimeout(() => {
      if (flying || asked.value || batch.turn !== open.turn()) return
      rest = stale = true
      void fly()
    }, REST_MS)
  }

  async function fly(): Promise<void> {
    while (stale && piece.value) {
      stale = false
      flying = true
      const batch = gathered(piece.value)
      try {
        await asks(batch, piece.value)
      } finally {
        if (batch.turn === open.turn()) flying = false
      }
      if (batch.turn !== open.turn()) return
    }
  }

  /** What goes into the next request. */
  function gathered(now: Piece): Batch {
    const moved = moves.value.slice(0, MOST_MOVES)
    const restated = said.value
    // What was typed after a drag or a choice waits until that is answered: it would be undone by it.
    const fence = Math.min(moved.length ? movedAt : Infinity, restated.length ? saidAt : Infinity)
    const edits = pending.value.filter((edit) => edit.at < fence)
    const turned = !moved.length && !restated.length && edits.every((edit) => edit.turning)
    const of = turned ? edits.map((edit) => edit.path).join() : ''
    const when = Date.now()
    const first = last()
    const further = first?.kind === 'piece' && goesOn(first, { ...first, of, when })
    return {
      turn: open.turn(),
      steps: open.steps(),
      edits,
      moved,
      restated,
      final: !moving.value && moved.length === moves.value.length,
      of,
      when,
      // A value that is turned on is changed from what it was before it was touched.
      old: before ?? (further ? first.before : now),
      changing: edits.length + restated.length + moved.length > 0,
      whole: looking.whole.value || rest,
    }
  }

  async function asks(batch: Batch, now: Piece): Promise<void> {
    const wanted = station.value
    // While something is held only what is drawn and written at the stance is asked for.
    const live = !batch.final && wanted === 'stance'
    try {
      const answer = (await ask(
        api.POST('/api/plan', {
          body: {
            piece: asTyped(now, batch.edits),
            before: batch.final && batch.changing ? batch.old : null,
            bare: useShop().system,
            station: looking.shown.value === 'solid' && wanted === 'stance' ? 'solid' : wanted,
            live,
            along: looking.shown.value === 'sight' ? looking.along.value : null,
            exaggerate: looking.exaggerate.value,
            readings: readings().told(),
            moves: batch.moved,
            restate: batch.restated,
            opened: batch.whole ? null : { ...looking.opened, by: lastTool(wanted) },
          },
        }),
      )) as PlanOut
      // Something was opened or taken back meanwhile: this answers what is no more.
      if (batch.turn !== open.turn() || batch.steps !== open.steps()) return
      pending.value = pending.value.filter((edit) => !batch.edits.includes(edit))
      letGo(batch)
      if (pending.value.length || moves.value.length) stale = true
      // What is the same stays the same: fields that show it are left alone.
      if (!same(piece.value, answer.piece)) piece.value = answer.piece
      looking.answered(wanted, answer.plan, answer.drawings, live)
      drop('')
      if (status.value === 'away') status.value = 'saving'
      if (batch.final) settle(batch, answer.says)
      restLater(batch)
    } catch (error) {
      if (batch.turn !== open.turn()) return
      // What was left out is of no use to anybody yet: it is asked for again with the next change.
      if (rest && error instanceof Away) return
      if (error instanceof Refused) {
        if (batch.steps === open.steps()) refused(error, batch)
      } else if (error instanceof Away) {
        status.value = 'away'
        saving.remember()
        await new Promise((go) => setTimeout(go, RETRY_MS))
        if (batch.turn === open.turn()) stale = true
      } else throw error
    }
  }

  /** Nothing of it is on its way any more, which is what "saved" is judged by. */
  function letGo(batch: Batch): void {
    moves.value = moves.value.filter((move) => !batch.moved.includes(move))
    said.value = said.value.filter((wish) => !batch.restated.includes(wish))
  }

  /** Something else may be held by now, or wait to be asked: it was taken from the piece as it is here. */
  function takenFrom(now: Piece | null): void {
    before = moving.value || moves.value.length ? now : null
  }

  /** After a change has been understood: one step to undo, and a save. */
  function settle(batch: Batch, says: string): void {
    const after = piece.value
    takenFrom(after)
    if (!batch.changing || !after || same(batch.old, after)) return saving.calm()
    const at = Math.max(
      0,
      ...batch.edits.map((edit) => edit.at),
      batch.moved.length ? movedAt : 0,
      batch.restated.length ? saidAt : 0,
    )
    const how: Told = { at, of: batch.of, when: batch.when, seen: Date.now(), says }
    record({ kind: 'piece', station: station.value, before: batch.old, after, ...how })
    saving.later()
  }

  /** What the server could not use is taken out of the piece and shown with its fault. */
  function refused(error: Refused, batch: Batch): void {
    letGo(batch)
    if (batch.final) takenFrom(piece.value)
    const found = (error.problem.faults ?? []).map((fault) => ({
      ...fault,
      field: fault.field.replace(/^piece\.?/, ''),
    }))
    if (rehearsal.value && found.some(ofReading)) return
    let guilty = batch.edits.filter((edit) =>
      found.some((f) => f.field === edit.path || f.field.startsWith(`${edit.path}.`)),
    )
    if (!guilty.length) guilty = batch.edits
    pending.value = pending.value.filter((edit) => !guilty.includes(edit))
    const next = { ...faults.value }
    for (const edit of guilty) {
      const within = found.find((f) => f.field.startsWith(`${edit.path}.`))
      const own = found.find((f) => f.field === edit.path) ?? within ?? found[0]
      if (own) next[edit.path] = { ...own, got: error.problem.title }
    }
    if (!guilty.length && found[0]) next[''] = found[0]
    faults.value = next
    // A piece that was opened with a change that cannot be is worked out without it.
    if (pending.value.length || moves.value.length || (guilty.length && !looking.plan.value))
      stale = true
    else saving.calm()
  }

  /** A reading of a rehearsal that cannot be is dropped, with its fault beside its field. */
  function ofReading(fault: Fault): boolean {
    const at = /^readings\.(\d+)\./.exec(fault.field)
    const wrong = at && readings().readings.value[Number(at[1])]
    if (!wrong) return false
    const key = `readings.${wrong.proof}`
    readings().drop(wrong)
    faults.value = { ...faults.value, [key]: { ...fault, field: key } }
    replan()
    return true
  }

  function drop(path: string): void {
    if (!(path in faults.value)) return
    faults.value = without(faults.value, path)
  }

  /** What was asked and is not answered yet is the first thing to be taken back; whether there was any. */
  function dropWaiting(): boolean {
    const at = [...pending.value.map((edit) => edit.at)]
    if (said.value.length) at.push(saidAt)
    if (moves.value.length) at.push(movedAt)
    if (!at.length || Math.max(...at) < (last()?.at ?? 0)) return false
    pending.value = []
    said.value = []
    moves.value = []
    before = null
    moving.value = false
    open.stepped()
    faults.value = {}
    replan()
    return true
  }

  return {
    pending,
    asked,
    moving,
    waits,
    forget,
    resume,
    set,
    restate,
    drag,
    replan,
    again,
    opens,
    wholly,
    drop,
    dropWaiting,
  }
}
