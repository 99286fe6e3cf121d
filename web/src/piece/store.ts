import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'

import { api, ask, Away, Refused } from '../api/client'
import type { Drawings, Fault, Move, Piece, PieceOut, Plan, PlanOut, Restate } from '../api/types'
import { withValue, without } from '../paths'
import { useShop } from '../shop/store'
import { useHad } from './had'
import { goesOn, type PieceStep, type Step, useHistory } from './history'
import { dropKept, keep, kept } from './kept'
import { useReadings } from './readings'
import { faultSaid } from '../said'
import { useTogether } from './together'

export type StationName = 'stance' | 'top' | 'boring' | 'legs' | 'stretchers' | 'level'
export type Status = 'loading' | 'saved' | 'saving' | 'away' | 'conflict' | 'missing' | 'unsaved'
interface Edit {
  path: string
  value: unknown
  /** Whether it is one of many steps of a value that is being turned. */
  turning?: boolean
  /** When it was made, among edits, drags and choices. */
  at: number
}

const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b)

const SAVE_AFTER_MS = 350
const RETRY_MS = 1500

/**
 * One piece being worked on. What is typed or dragged becomes a pending edit at once; one request
 * at a time turns pending edits into the server's reading of the piece and its plan. Edits that
 * the server cannot use are set aside with their fault; edits it cannot hear are kept and sent again.
 */
export const usePiece = defineStore('piece', () => {
  const id = ref('')
  const piece = shallowRef<Piece | null>(null)
  const plan = shallowRef<Plan | null>(null)
  const drawings = shallowRef<Drawings | null>(null)
  const faults = ref<Record<string, Fault>>({})
  const status = ref<Status>('loading')
  const station = ref<StationName>('stance')
  /** The station that plan and drawings were asked for: they hold no other's cards. */
  const turned = ref<StationName>('stance')
  /** What each station showed last, so that turning to it again shows it at once. */
  const seen = new Map<StationName, { plan: Plan; drawings: Drawings }>()
  const lit = ref('')
  /** What the stance shows besides its plan: the side, a look along a bearing, or the solids. */
  const shown = ref<'side' | 'sight' | 'solid'>('side')
  const along = ref(0)
  /** How many times over the unlikeness of the feet is drawn at Level. */
  const exaggerate = ref(1)
  /** The figures as they were read when the piece was opened: shown while it cannot be planned. */
  const opened = shallowRef<PieceOut['chosen']>({})
  /** Whether its maker called it finished. */
  const finished = ref(false)
  const chosen = computed(() => plan.value?.chosen ?? opened.value)
  /** The hidden truth that is rehearsed on; nothing of a rehearsal is kept. */
  const rehearsal = ref<{ start: string; seed: number } | null>(null)
  const history = useHistory()
  const had = useHad()
  const { last, next } = history
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
  /** What was taken back or done again last. */
  const tookBack = shallowRef<{ what: 'taken back' | 'done again'; step: Step } | null>(null)

  let revision = 0
  /** What was typed or chosen and is not worked out yet. */
  const pending = shallowRef<Edit[]>([])
  const move = shallowRef<Move | null>(null)
  const said = shallowRef<Restate[]>([])
  let moving = false
  let before: Piece | null = null
  let flying = false
  let stale = false
  let saveTimer = 0
  function proofOf(proof: string) {
    return plan.value?.proofs.find((one) => one.id === proof)
  }
  /** Counts edits, drags and choices in the order they are made. */
  let made = 0
  let movedAt = 0
  let saidAt = 0
  let unsaved = false
  let writing = false
  let turn = 0
  /** Counts steps back and forth: an answer to what was asked before one is of another piece. */
  let steps = 0

  const canUndo = computed(() => last.value !== undefined)
  const canRedo = computed(() => next.value !== undefined)
  /** Whether figures that are shown wait for something that was done. */
  const waiting = computed(
    () =>
      pending.value.length + said.value.length > 0 ||
      move.value !== null ||
      Object.keys(allUnsent.value).length > 0,
  )
  /** What is said of the whole: readings are on their way too. */
  const shownStatus = computed<Status>(() => {
    if (status.value !== 'saved') return status.value
    if (Object.keys(allUnsent.value).length) return 'away'
    return taken.sending.value ? 'saving' : 'saved'
  })
  /** Whether what was typed at a path is not worked out yet. */
  const waits = (path: string): boolean => pending.value.some((edit) => edit.path === path)

  function clear(wanted: string): number {
    turn += 1
    clearTimeout(saveTimer)
    id.value = wanted
    rehearsal.value = null
    taken.forget()
    together.forget()
    history.forget()
    had.forget()
    tookBack.value = null
    piece.value = plan.value = drawings.value = null
    seen.clear()
    pending.value = []
    said.value = []
    move.value = null
    flying = stale = unsaved = writing = false
    faults.value = {}
    shown.value = 'side'
    status.value = 'loading'
    return turn
  }

  async function open(wanted: string): Promise<void> {
    const mine = clear(wanted)
    try {
      const got = await ask(api.GET('/api/pieces/{id}', { params: { path: { id: wanted } } }))
      if (mine === turn) adopt(got)
    } catch (error) {
      if (mine !== turn) return
      if (error instanceof Away) setTimeout(() => mine === turn && void open(wanted), RETRY_MS)
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
      if (mine !== turn) return
      rehearsal.value = { start, seed }
      piece.value = got
      station.value = 'level'
      status.value = 'saved'
      replan()
    } catch (error) {
      if (mine !== turn) return
      if (error instanceof Away)
        setTimeout(() => mine === turn && void rehearse(start, seed), RETRY_MS)
      status.value = 'away'
    }
  }

  function adopt(got: PieceOut): void {
    revision = got.revision
    taken.begin(got.readings)
    const mine = kept(id.value)
    piece.value = mine?.piece ?? got.piece
    opened.value = got.chosen
    finished.value = got.finished
    status.value = 'saved'
    if (mine) {
      revision = mine.revision
      pending.value = mine.pending.map((edit) => ({ ...edit, at: 0 }))
      later()
    }
    replan()
  }

  /** What somebody else did and what was done here, in one piece. */
  function joined(both: Piece, theirs: PieceOut): void {
    revision = theirs.revision
    taken.refresh(theirs.readings)
    steps += 1
    piece.value = both
    if (same(both, theirs.piece)) {
      unsaved = false
      status.value = 'saving'
      calm()
    } else later()
    replan()
  }

  /** The page was out of sight: others may have worked meanwhile. */
  async function catchUp(): Promise<void> {
    if (!id.value || rehearsal.value || !piece.value || clashing.value || writing) return
    const mine = turn
    try {
      const got = await ask(api.GET('/api/pieces/{id}', { params: { path: { id: id.value } } }))
      if (mine !== turn || writing || got.revision < revision) return
      if (got.revision > revision) await together.bring(got, revision)
      else if (taken.refresh(got.readings)) replan()
      if (clashing.value) status.value = 'conflict'
    } catch {
      // It is asked again when the page is next looked at, or with the next save.
    }
  }

  /** A reading was given: a step like any other. */
  function did(step: Omit<Extract<Step, { kind: 'reading' }>, 'at' | 'station' | 'kind'>): Step {
    const kind = 'reading' as const
    const one = { kind, at: (made += 1), station: station.value, ...step }
    history.record(one)
    tookBack.value = null
    return one
  }

  /** Put a value, typed or chosen, at a place of the piece. */
  function set(path: string, value: unknown, turning = false): void {
    const others = pending.value.filter((edit) => edit.path !== path)
    pending.value = [...others, { path, value, turning, at: (made += 1) }]
    drop(path)
    remember()
    busy()
    replan()
  }

  /** The piece with what was typed and is not worked out yet. */
  function asTyped(of: Piece, edits: Edit[]): Piece {
    return edits.reduce((made, edit) => withValue(made, edit.path, edit.value), of)
  }

  /** Say one thing another way: the server knows how, and keeps the piece as it is. */
  function restate(ask: Pick<Restate, 'what' | 'to'> & Partial<Restate>): void {
    const was = piece.value && had.again(asTyped(piece.value, pending.value), ask)
    if (was) {
      set(was.path, was.part)
      return
    }
    if (!said.value.length) saidAt = made += 1
    said.value = [...said.value, { support: 0, leg: 0, measured_from: 'out', ...ask }]
    busy()
    replan()
  }

  /** A handle is being dragged; `final` when it is let go. */
  function drag(to: Move, final: boolean): void {
    if (!moving) before = piece.value
    moving = !final
    if (!move.value) movedAt = made += 1
    move.value = to
    busy()
    replan()
  }

  function replan(): void {
    // What the other stations showed is of a moment ago: turned to, they are laid out anew.
    for (const name of [...seen.keys()]) if (name !== station.value) seen.delete(name)
    again()
  }

  function again(): void {
    stale = true
    if (!flying) void fly()
  }

  async function fly(): Promise<void> {
    const shop = useShop()
    while (stale && piece.value) {
      stale = false
      flying = true
      const mine = turn
      const at = steps
      const moved = move.value
      const restated = said.value
      // What was typed after a drag or a choice waits until that is answered: it would be undone by it.
      const fence = Math.min(moved ? movedAt : Infinity, restated.length ? saidAt : Infinity)
      const batch = pending.value.filter((edit) => edit.at < fence)
      const final = !moving
      const turned = !moved && !restated.length && batch.every((edit) => edit.turning)
      const of = turned ? batch.map((edit) => edit.path).join() : ''
      const when = Date.now()
      const first = last.value
      const further = first?.kind === 'piece' && goesOn(first, { ...first, of, when })
      // A value that is turned on is changed from what it was before it was touched.
      const old = before ?? (further ? first.before : piece.value)
      const changing = batch.length + restated.length > 0 || moved !== null
      const wanted = station.value
      // While something is held only what is drawn and written at the stance is asked for.
      const live = !final && wanted === 'stance'
      const asked = asTyped(piece.value, batch)
      try {
        const answer = (await ask(
          api.POST('/api/plan', {
            body: {
              piece: asked,
              before: final && changing ? old : null,
              bare: shop.system,
              station: shown.value === 'solid' && wanted === 'stance' ? 'solid' : wanted,
              live,
              along: shown.value === 'sight' ? along.value : null,
              exaggerate: exaggerate.value,
              readings: told(),
              moves: moved ? [moved] : [],
              restate: restated,
            },
          }),
        )) as PlanOut
        if (mine !== turn) return
        // Something was taken back meanwhile: this answers what is no more.
        if (at !== steps) continue
        pending.value = pending.value.filter((edit) => !batch.includes(edit))
        if (pending.value.length) stale = true
        if (move.value === moved) move.value = null
        said.value = said.value.filter((ask) => !restated.includes(ask))
        piece.value = answer.piece
        const stations = live ? plan.value?.stations : undefined
        const whole = stations?.length ? { ...answer.plan, stations } : answer.plan
        seen.set(wanted, { plan: whole, drawings: answer.drawings })
        if (wanted === station.value) turnTo(wanted)
        drop('')
        if (status.value === 'away') status.value = 'saving'
        if (final) {
          const at = Math.max(
            0,
            ...batch.map((edit) => edit.at),
            moved ? movedAt : 0,
            restated.length ? saidAt : 0,
          )
          settle(old, changing, { at, of, when, seen: Date.now(), says: answer.says })
        }
      } catch (error) {
        if (mine !== turn) return
        if (at !== steps && error instanceof Refused) continue
        if (error instanceof Refused) {
          // Nothing of it is on its way any more, which is what "saved" is judged by.
          said.value = said.value.filter((ask) => !restated.includes(ask))
          if (move.value === moved) move.value = null
          if (final) before = null
          setAside(error, batch)
        } else if (error instanceof Away) {
          status.value = 'away'
          if (!rehearsal.value)
            keep(id.value, { piece: piece.value, pending: pending.value, revision })
          await new Promise((go) => setTimeout(go, RETRY_MS))
          stale = true
        } else throw error
      } finally {
        if (mine === turn) flying = false
      }
    }
  }

  /** Something is on its way: "saved" would not be true any more. */
  function busy(): void {
    if (status.value === 'saved') status.value = 'saving'
  }

  /** Nothing is on its way after all. */
  function calm(): void {
    const asked = pending.value.length + said.value.length > 0 || move.value !== null
    if (status.value !== 'saving' || asked || unsaved) return
    status.value = 'saved'
    if (!rehearsal.value) dropKept(id.value)
  }

  /** After a change has been understood: one step to undo, and a save. */
  function settle(
    old: Piece,
    changed: boolean,
    how: Pick<PieceStep, 'at' | 'says' | 'of' | 'when' | 'seen'>,
  ): void {
    before = null
    const after = piece.value
    if (!changed || !after || same(old, after)) return calm()
    history.record({ kind: 'piece', station: station.value, before: old, after, ...how })
    tookBack.value = null
    later()
  }

  /** What the server could not use is taken out of the piece and shown with its fault. */
  function setAside(error: Refused, batch: Edit[]): void {
    const found = (error.problem.faults ?? []).map((fault) => ({
      ...fault,
      field: fault.field.replace(/^piece\.?/, ''),
    }))
    for (const fault of found) {
      const at = /^readings\.(\d+)\./.exec(fault.field)
      const wrong = at && readings.value[Number(at[1])]
      if (!wrong || !rehearsal.value) continue
      const key = `readings.${wrong.proof}`
      taken.drop(wrong)
      faults.value = { ...faults.value, [key]: { ...fault, field: key } }
      replan()
      return
    }
    let guilty = batch.filter((edit) =>
      found.some((f) => f.field === edit.path || f.field.startsWith(`${edit.path}.`)),
    )
    if (!guilty.length) guilty = batch
    pending.value = pending.value.filter((edit) => !guilty.includes(edit))
    const next = { ...faults.value }
    for (const edit of guilty) {
      const own = found.find((f) => f.field === edit.path) ?? found[0]
      if (own) next[edit.path] = { ...own, got: error.problem.title }
    }
    if (!guilty.length && found[0]) next[''] = found[0]
    faults.value = next
    // A piece that was opened with a change that cannot be is worked out without it.
    if (pending.value.length || (guilty.length && !plan.value)) stale = true
    else calm()
  }

  function drop(path: string): void {
    if (!(path in faults.value)) return
    faults.value = without(faults.value, path)
  }

  function remember(): void {
    if (piece.value && !rehearsal.value)
      keep(id.value, { piece: piece.value, pending: pending.value, revision })
  }

  function later(): void {
    if (rehearsal.value) {
      status.value = 'saved'
      return
    }
    if (status.value !== 'conflict') status.value = 'saving'
    unsaved = true
    remember()
    clearTimeout(saveTimer)
    saveTimer = window.setTimeout(() => void save(), SAVE_AFTER_MS)
  }

  /** One save at a time: a second one beside it would be based on the same revision, and refused. */
  async function save(over = revision): Promise<void> {
    const mine = turn
    const document = piece.value
    if (!document) return
    if (writing) {
      later()
      return
    }
    writing = true
    try {
      const got = await ask(
        api.PUT('/api/pieces/{id}', {
          params: { path: { id: id.value } },
          body: { document: document, based_on: over },
        }),
      )
      if (mine !== turn) return
      revision = got.revision
      // By content: a plan that came back meanwhile brings the same piece as a new object.
      if (same(piece.value, document)) unsaved = false
      // It was heard, so the workshop is back; a plan that is still away says so again.
      status.value = 'saving'
      calm()
    } catch (error) {
      if (mine !== turn) return
      if (error instanceof Refused && error.problem.status === 409) {
        await putTogether()
      } else if (error instanceof Away) {
        status.value = 'away'
        saveTimer = window.setTimeout(() => void save(over), RETRY_MS)
      } else if (error instanceof Refused) {
        // Kept in the browser; sent again with the next change, or when the piece is next opened.
        status.value = 'unsaved'
        const fault = error.problem.faults?.[0]
        if (fault) faults.value = { ...faults.value, '': { ...fault, field: '' } }
      } else throw error
    } finally {
      if (mine === turn) writing = false
    }
  }

  /** It was saved elsewhere meanwhile: both changes in one, or what to choose between. */
  async function putTogether(): Promise<void> {
    const mine = turn
    try {
      const got = await ask(api.GET('/api/pieces/{id}', { params: { path: { id: id.value } } }))
      if (mine !== turn) return
      await together.bring(got, revision)
      if (mine === turn && clashing.value) status.value = 'conflict'
    } catch (error) {
      if (mine !== turn) return
      if (!(error instanceof Away)) throw error
      status.value = 'away'
      saveTimer = window.setTimeout(() => void save(), RETRY_MS)
    }
  }

  /** The piece as a step makes it, or made it before: in one piece with whatever was done since. */
  async function turnPiece(from: Piece, to: Piece): Promise<void> {
    const mine = turn
    let made = to
    if (!same(piece.value, from) && piece.value) {
      made = (await together.merged(from, piece.value, to)).piece
      if (mine !== turn) return
    }
    steps += 1
    piece.value = made
    faults.value = {}
    later()
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

  /** What was asked and is not answered yet is the first thing to be taken back; whether there was any. */
  function dropWaiting(): boolean {
    const asked = [...pending.value.map((edit) => edit.at)]
    if (said.value.length) asked.push(saidAt)
    if (move.value) asked.push(movedAt)
    if (!asked.length || Math.max(...asked) < (last.value?.at ?? 0)) return false
    pending.value = []
    said.value = []
    move.value = before = null
    moving = false
    steps += 1
    faults.value = {}
    replan()
    return true
  }

  const undo = (): void => {
    if (!dropWaiting()) walk(history.back(), true)
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
    steps += 1
    const kind = 'piece' as const
    const at = (made += 1)
    history.record({ kind, at, station: station.value, says, before: piece.value, after: old })
    tookBack.value = null
    piece.value = old
    later()
    replan()
  }

  /** The answer of a station takes the bench, where there is one yet. */
  function turnTo(name: StationName): void {
    const last = seen.get(name)
    if (!last) return
    plan.value = last.plan
    drawings.value = last.drawings
    turned.value = name
  }

  function show(name: StationName): void {
    if (station.value === name && turned.value === name && drawings.value) return
    station.value = name
    turnTo(name)
    again()
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
    piece,
    plan,
    drawings,
    faults,
    status: shownStatus,
    waiting,
    waits,
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
    set,
    restate,
    drag,
    replan,
    undo,
    redo,
    restore,
    finished,
    finish,
    answer,
    show,
    drop,
  }
})
