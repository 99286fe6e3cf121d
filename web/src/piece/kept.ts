import type { Bare, Piece } from '../api/types'

/** What is not saved yet, kept in this browser until the workshop has it. */
export interface Kept {
  piece: Piece
  pending: { path: string; value: unknown }[]
  revision: number
}

/** What a reading is sent with besides its figure. */
export interface More {
  note?: string
  tool?: string
  sure?: boolean
  /** The kind of its proof: it counts even where the piece asks it no more. */
  kind?: string
  /** What a bare figure meant when it was typed. */
  bare?: Bare
  /** Whether the reading stands as it was taken, and only what is said about it changes. */
  keep?: boolean
  /** Which of several like pieces it was taken on; the first where nothing is said. */
  copy_number?: number
  /** The number of the answer it was typed over, 0 for none. */
  based_on?: number
}
/** A reading that waits to be sent; kept by an older page without its proof. */
export type Waiting = More & { typed: string; proof?: string }
/** Readings that wait to be sent, by proof and copy. */
export type Unsent = Record<string, Waiting>

const name = (id: string): string => `proud-rake.unsaved.${id}`

export function keep(id: string, what: Kept): void {
  localStorage.setItem(name(id), JSON.stringify(what))
}

export function dropKept(id: string): void {
  localStorage.removeItem(name(id))
}

export function kept(id: string): Kept | null {
  const text = localStorage.getItem(name(id))
  if (!text) return null
  try {
    return JSON.parse(text) as Kept
  } catch {
    dropKept(id)
    return null
  }
}

const unsentName = (id: string): string => `proud-rake.unsent.${id}`

/** Readings the workshop has not heard yet, by proof. */
export function keepUnsent(id: string, what: Unsent): void {
  if (Object.keys(what).length) localStorage.setItem(unsentName(id), JSON.stringify(what))
  else localStorage.removeItem(unsentName(id))
}

export function unsentOf(id: string): Unsent {
  try {
    return JSON.parse(localStorage.getItem(unsentName(id)) ?? '{}') as Unsent
  } catch {
    localStorage.removeItem(unsentName(id))
    return {}
  }
}
