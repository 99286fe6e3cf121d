import { computed, shallowRef } from 'vue'

import type { Piece } from '../api/types'

const MOST = 200

/** An answer to a proof, as it is given again. */
export interface Given {
  typed: string
  tool: string
  note: string
  sure: boolean
}

interface Made {
  /** Its turn among all that was done: what is heard late still stands where it was made. */
  at: number
  /** The station it was made at. */
  station: string
  /** What it changed, in words. */
  says: string
}
export interface PieceStep extends Made {
  kind: 'piece'
  /** What was changed, and when: steps of one value in one go are one. */
  of?: string
  when?: number
  /** When the maker saw what it came to: a slow answer does not part one turning into two. */
  seen?: number
  before: Piece
  after: Piece
}
export interface ReadingStep extends Made {
  kind: 'reading'
  proof: string
  /** Which of several like pieces it was taken on. */
  copy: number
  /** The answer before and after; nothing where there was none. */
  before: Given | null
  after: Given | null
}
/** One thing a maker did. */
export type Step = PieceStep | ReadingStep

const IN_ONE_GO_MS = 1200

/** Whether a step only takes the one before it further: a value being turned. */
export function goesOn(last: Step, step: Step): boolean {
  if (last.kind !== 'piece' || step.kind !== 'piece' || !step.of || last.of !== step.of)
    return false
  return (step.when ?? 0) - (last.seen ?? last.when ?? 0) < IN_ONE_GO_MS
}

/** What was done to the open piece, in the order it was done, and what of it was taken back. */
export function useHistory() {
  const done = shallowRef<Step[]>([])
  const undone = shallowRef<Step[]>([])

  /** Something was done: what was taken back before is gone. */
  function record(step: Step): void {
    const last = done.value.at(-1)
    if (last && goesOn(last, step)) {
      done.value = [...done.value.slice(0, -1), step]
      undone.value = []
      return
    }
    const later = done.value.filter((one) => one.at > step.at)
    const sooner = done.value.filter((one) => one.at <= step.at)
    done.value = [...sooner, step, ...later].slice(-MOST)
    undone.value = []
  }

  /** It was not done after all. */
  function strike(step: Step): void {
    done.value = done.value.filter((one) => one !== step)
    undone.value = undone.value.filter((one) => one !== step)
  }

  /** The last thing done, which is taken back now. */
  function back(): Step | undefined {
    const step = done.value.at(-1)
    if (!step) return undefined
    done.value = done.value.slice(0, -1)
    undone.value = [...undone.value, step]
    return step
  }

  /** The last thing taken back, which is done again now. */
  function forth(): Step | undefined {
    const step = undone.value.at(-1)
    if (!step) return undefined
    undone.value = undone.value.slice(0, -1)
    done.value = [...done.value, step]
    return step
  }

  function forget(): void {
    done.value = []
    undone.value = []
  }

  const last = computed(() => done.value.at(-1))
  const next = computed(() => undone.value.at(-1))
  return { last, next, record, strike, back, forth, forget }
}
