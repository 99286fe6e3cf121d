import { ref, shallowRef } from 'vue'

import type { Fault, Piece } from '../api/types'

export type StationName = 'stance' | 'top' | 'boring' | 'legs' | 'stretchers' | 'level'
export type Status = 'loading' | 'saved' | 'saving' | 'away' | 'conflict' | 'missing' | 'unsaved'

export const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b)
export const RETRY_MS = 1500

/** The piece that is open, and what all who work on it count by. */
export function useOpen() {
  const id = ref('')
  const piece = shallowRef<Piece | null>(null)
  const faults = ref<Record<string, Fault>>({})
  const status = ref<Status>('loading')
  const station = ref<StationName>('stance')
  /** The hidden truth that is rehearsed on; nothing of a rehearsal is kept. */
  const rehearsal = ref<{ start: string; seed: number } | null>(null)
  /** Which piece was opened, counted: an answer to what was asked of the one before is of no use. */
  let turn = 0
  /** Steps back and forth: an answer to what was asked before one is of another piece. */
  let steps = 0
  /** Edits, drags and choices in the order they are made. */
  let made = 0

  /** Something is on its way: "saved" would not be true any more. */
  function busy(): void {
    if (status.value === 'saved') status.value = 'saving'
  }

  return {
    id,
    piece,
    faults,
    status,
    station,
    rehearsal,
    busy,
    turn: () => turn,
    /** Another piece is opened. */
    turned: () => (turn += 1),
    steps: () => steps,
    /** The piece became another one without being asked for. */
    stepped: () => (steps += 1),
    /** The turn of what is done now. */
    next: () => (made += 1),
  }
}
export type Open = ReturnType<typeof useOpen>
