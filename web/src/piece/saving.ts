import { api, ask, Away, Refused } from '../api/client'
import type { Piece } from '../api/types'
import { dropKept, keep, type Kept } from './kept'
import { type Open, RETRY_MS, same } from './open'

const SAVE_AFTER_MS = 350

/** What saving needs of the open piece. */
interface Needs {
  open: Open
  /** What was typed and is not worked out yet: kept with the piece. */
  pending: () => Kept['pending']
  /** Whether anything is asked for and not answered. */
  asked: () => boolean
  /** Whether a handle is held: what is half dragged nobody has made yet. */
  held: () => boolean
  /** Somebody else saved meanwhile: both changes in one, from the revision this one began from. */
  putTogether: (from: number) => Promise<void>
}

/** The piece on its way to the workshop: kept in this browser until it is there. */
export function useSaving({ open, pending, asked, held, putTogether }: Needs) {
  const { id, piece, faults, status, rehearsal } = open
  let revision = 0
  let timer = 0
  let unsaved = false
  let writing = false

  function forget(): void {
    clearTimeout(timer)
    unsaved = writing = false
  }

  /** What the workshop has, by its number. */
  function at(number: number): void {
    revision = number
  }

  /** The workshop has what is here. */
  function isThere(): void {
    unsaved = false
    status.value = 'saving'
    calm()
  }

  /** Nothing is on its way after all. */
  function calm(): void {
    if (status.value !== 'saving' || asked() || unsaved) return
    status.value = 'saved'
    if (!rehearsal.value) dropKept(id.value)
  }

  /** All of it is kept in this browser. */
  function remember(): void {
    if (piece.value && !rehearsal.value)
      keep(id.value, { piece: piece.value, pending: pending(), revision })
  }

  /** The piece changed: it is saved when nothing more is done for a moment. */
  function later(): void {
    if (rehearsal.value) {
      status.value = 'saved'
      return
    }
    if (status.value !== 'conflict') status.value = 'saving'
    unsaved = true
    remember()
    clearTimeout(timer)
    timer = window.setTimeout(() => void save(), SAVE_AFTER_MS)
  }

  /** One save at a time: a second one beside it would be based on the same revision, and refused. */
  async function save(over = revision): Promise<void> {
    const mine = open.turn()
    const document = piece.value
    if (!document) return
    if (writing || held()) {
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
      if (mine === open.turn()) saved(got.revision, document)
    } catch (error) {
      if (mine === open.turn()) await failed(error, over)
    } finally {
      if (mine === open.turn()) writing = false
    }
  }

  function saved(number: number, document: Piece): void {
    revision = number
    // By content: a plan that came back meanwhile brings the same piece as a new object.
    if (same(piece.value, document)) unsaved = false
    else later()
    // It was heard, so the workshop is back; a plan that is still away says so again.
    status.value = 'saving'
    calm()
  }

  async function failed(error: unknown, over: number): Promise<void> {
    if (error instanceof Away) again(over)
    else if (!(error instanceof Refused)) throw error
    else if (error.problem.status === 409) await together()
    else {
      // Kept in the browser; sent again with the next change, or when the piece is next opened.
      status.value = 'unsaved'
      const fault = error.problem.faults?.[0]
      if (fault) faults.value = { ...faults.value, '': { ...fault, field: '' } }
    }
  }

  async function together(): Promise<void> {
    const mine = open.turn()
    try {
      await putTogether(revision)
    } catch (error) {
      if (mine !== open.turn()) return
      if (!(error instanceof Away)) throw error
      again(revision)
    }
  }

  function again(over: number): void {
    status.value = 'away'
    timer = window.setTimeout(() => void save(over), RETRY_MS)
  }

  return {
    forget,
    at,
    isThere,
    calm,
    remember,
    later,
    revision: () => revision,
    writing: () => writing,
  }
}
