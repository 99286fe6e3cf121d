import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'

import { api, ask, Away } from '../api/client'
import type { Piece, PieceOut } from '../api/types'
import { faultSaid } from '../said'
import { type Step, useHistory } from './history'
import { kept } from './kept'
import { useLooking } from './looking'
import { RETRY_MS, same, type StationName, type Status, useOpen } from './open'
import { usePlanning } from './planning'
import { useReadings } from './readings'
import { useSaving } from './saving'
import { useTogether } from './together'

export type { StationName, Status } from './open'

/**
 * One piece being worked on: what is chosen and its history, its readings, what is worked out of it, what
 * is shown, and its way to the workshop.
 */
export const usePiece = defineStore('piece', () => {
  const bench = useOpen()
  const { id, piece, faults, status, station, rehearsal } = bench
  const looking = useLooking(bench)
  const { plan, drawings, turned, lit, shown, along, exaggerate } = looking
  const history = useHistory()
  const { last, next } = history
  const saving = useSaving({
    open: bench,
    pending: () => planning.pending.value,
    asked: () => planning.asked.value,
    held: () => planning.moving.value,
    putTogether,
  })
  const planning = usePlanning({
    open: bench,
    looking,
    readings: () => taken,
    last: () => last.value,
    record,
    saving,
  })
  const { replan } = planning
  const taken = useReadings({
    id,
    piece,
    rehearsal,
    faults,
    proofOf,
    did,
    strike: history.strike,
    replan,
  })
  const { copy, readings, heard, unsent, allUnsent, told, answer, take } = taken
  const together = useTogether({ id, piece, adopt: joined })
  const { clashing, meanwhile, picks, pick } = together
  /** The figures as they were read when the piece was opened: shown while it cannot be planned. */
  const opened = shallowRef<PieceOut['chosen']>({})
  /** Whether its maker called it finished. */
  const finished = ref(false)
  const chosen = computed(() => plan.value?.chosen ?? opened.value)
  /** What was taken back or done again last. */
  const tookBack = shallowRef<{ what: 'taken back' | 'done again'; step: Step } | null>(null)

  const canUndo = computed(() => last.value !== undefined)
  const canRedo = computed(() => next.value !== undefined)
  /** Whether figures that are shown wait for something that was done. */
  const waiting = computed(() => planning.asked.value || Object.keys(allUnsent.value).length > 0)
  /** What is said of the whole: readings are on their way too. */
  const shownStatus = computed<Status>(() => {
    if (status.value !== 'saved') return status.value
    if (Object.keys(allUnsent.value).length) return 'away'
    return taken.sending.value ? 'saving' : 'saved'
  })

  function proofOf(proof: string) {
    return plan.value?.proofs.find((one) => one.id === proof)
  }

  function clear(wanted: string): number {
    const mine = bench.turned()
    id.value = wanted
    rehearsal.value = null
    saving.forget()
    taken.forget()
    together.forget()
    history.forget()
    planning.forget()
    looking.forget()
    tookBack.value = null
    piece.value = null
    faults.value = {}
    status.value = 'loading'
    return mine
  }

  const fetched = (): Promise<PieceOut> =>
    ask(api.GET('/api/pieces/{id}', { params: { path: { id: id.value } } }))

  async function open(wanted: string): Promise<void> {
    const mine = clear(wanted)
    try {
      const got = await fetched()
      if (mine === bench.turn()) adopt(got)
    } catch (error) {
      if (mine !== bench.turn()) return
      if (error instanceof Away)
        setTimeout(() => mine === bench.turn() && void open(wanted), RETRY_MS)
      status.value = error instanceof Away ? 'away' : 'missing'
    }
  }

  /** A virtual piece with hidden errors, to level without wood; `seed` is what it hides. */
  async function rehearse(
    start: 'round_three' | 'round_four' | 'bench' | 'slab',
    seed: number,
  ): Promise<void> {
    const mine = clear('')
    try {
      const got = await ask(
        api.GET('/api/rehearsal/pieces/{start}', { params: { path: { start } } }),
      )
      if (mine !== bench.turn()) return
      rehearsal.value = { start, seed }
      piece.value = got
      station.value = 'level'
      status.value = 'saved'
      replan()
    } catch (error) {
      if (mine !== bench.turn()) return
      if (error instanceof Away)
        setTimeout(() => mine === bench.turn() && void rehearse(start, seed), RETRY_MS)
      status.value = 'away'
    }
  }

  function adopt(got: PieceOut): void {
    saving.at(got.revision)
    taken.begin(got.readings)
    const mine = kept(id.value)
    piece.value = mine?.piece ?? got.piece
    opened.value = got.chosen
    finished.value = got.finished
    status.value = 'saved'
    if (mine) {
      saving.at(mine.revision)
      planning.resume(mine.pending)
      saving.later()
    }
    replan()
  }

  /** What somebody else did and what was done here, in one piece. */
  function joined(both: Piece, theirs: PieceOut): void {
    saving.at(theirs.revision)
    taken.refresh(theirs.readings)
    bench.stepped()
    piece.value = both
    if (same(both, theirs.piece)) saving.isThere()
    else saving.later()
    replan()
  }

  /** It was saved elsewhere meanwhile: both changes in one, or what to choose between. */
  async function putTogether(): Promise<void> {
    const mine = bench.turn()
    const got = await fetched()
    if (mine !== bench.turn()) return
    await together.bring(got, saving.revision())
    if (mine === bench.turn() && clashing.value) status.value = 'conflict'
  }

  /** The page was out of sight: others may have worked meanwhile. */
  async function catchUp(): Promise<void> {
    const idle = id.value && !rehearsal.value && piece.value && !clashing.value
    if (!idle || saving.writing()) return
    const mine = bench.turn()
    try {
      const got = await fetched()
      if (mine !== bench.turn() || saving.writing() || got.revision < saving.revision()) return
      if (got.revision > saving.revision()) await together.bring(got, saving.revision())
      else if (taken.refresh(got.readings)) replan()
      if (clashing.value) status.value = 'conflict'
    } catch {
      // It is asked again when the page is next looked at, or with the next save.
    }
  }

  /** Something was done: what was taken back is not what was done last any more. */
  function record(step: Step): void {
    history.record(step)
    tookBack.value = null
  }

  /** A reading was given: a step like any other. */
  function did(step: Omit<Extract<Step, { kind: 'reading' }>, 'at' | 'station' | 'kind'>): Step {
    const kind = 'reading' as const
    const one = { kind, at: bench.next(), station: station.value, ...step }
    record(one)
    return one
  }

  /** The piece as a step makes it, or made it before: in one piece with whatever was done since. */
  async function turnPiece(from: Piece, to: Piece): Promise<void> {
    const mine = bench.turn()
    let made = to
    if (!same(piece.value, from) && piece.value) {
      made = (await together.merged(from, piece.value, to)).piece
      if (mine !== bench.turn()) return
    }
    bench.stepped()
    piece.value = made
    faults.value = {}
    saving.later()
    replan()
  }

  /** Steps back and forth are taken one after the other, however fast they are asked for. */
  let walking: Promise<void> = Promise.resolve()
  function walk(step: Step | undefined, back: boolean): void {
    if (!step || !piece.value) return
    tookBack.value = { what: back ? 'taken back' : 'done again', step }
    if (step.kind === 'reading') {
      void taken.again(step, back ? step.before : step.after)
      return
    }
    const [from, to] = back ? [step.after, step.before] : [step.before, step.after]
    walking = walking
      .then(() => turnPiece(from, to))
      .catch(() => {
        // The workshop could not be asked: the step stands as it did.
        if (back) history.forth()
        else history.back()
        tookBack.value = null
      })
  }

  const undo = (): void => {
    if (!planning.dropWaiting()) walk(history.back(), true)
  }
  const redo = (): void => walk(history.forth(), false)

  /** Call the piece finished, or not yet. */
  async function finish(now: boolean): Promise<void> {
    const params = { path: { id: id.value } }
    try {
      const body = { finished: now }
      finished.value = (await ask(api.PUT('/api/pieces/{id}/finished', { params, body }))).finished
    } catch {
      const said = 'The workshop did not take it: say it again in a moment.'
      faults.value = { ...faults.value, '': faultSaid('', said) }
    }
  }

  /** Put an earlier saved state back, as a change that can be undone. */
  function restore(old: Piece, says: string): void {
    if (!piece.value) return
    bench.stepped()
    const kind = 'piece' as const
    const at = bench.next()
    record({ kind, at, station: station.value, says, before: piece.value, after: old })
    piece.value = old
    saving.later()
    replan()
  }

  function show(name: StationName): void {
    if (station.value === name && turned.value === name && drawings.value) return
    station.value = name
    looking.close()
    looking.turnTo(name)
    planning.again()
  }

  /** Look at the stance another way; `bearing` for a look along it, degrees. */
  function look(way: 'side' | 'sight' | 'solid', bearing = 0): void {
    shown.value = way
    along.value = bearing
    replan()
  }

  function enlarge(times: number): void {
    exaggerate.value = times
    replan()
  }

  return {
    id,
    chosen,
    exaggerate,
    enlarge,
    rehearsal,
    rehearse,
    heard,
    unsent,
    take,
    told,
    shown,
    along,
    look,
    moving: planning.moving,
    opens: planning.opens,
    opened: looking.opened,
    wholly: planning.wholly,
    piece,
    plan,
    drawings,
    faults,
    status: shownStatus,
    waiting,
    waits: planning.waits,
    last,
    next,
    tookBack,
    clashing,
    meanwhile,
    picks,
    pick,
    catchUp,
    station,
    turned,
    lit,
    readings,
    copy,
    turnToCopy: taken.turnTo,
    readingsSettled: taken.settled,
    canUndo,
    canRedo,
    open,
    set: planning.set,
    restate: planning.restate,
    drag: planning.drag,
    replan,
    undo,
    redo,
    restore,
    finished,
    finish,
    answer,
    show,
    drop: planning.drop,
  }
})
