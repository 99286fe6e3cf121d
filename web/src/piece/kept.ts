import type { Piece } from '../api/types'

/** What is not saved yet, kept in this browser until the workshop has it. */
export interface Kept {
  piece: Piece
  pending: { path: string; value: unknown }[]
  revision: number
}

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
