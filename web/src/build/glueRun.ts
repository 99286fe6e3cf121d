/** A sitting of the glue-up under way, kept in this browser: a reload loses no second of it. */
export interface Run {
  /** Which sitting, counted from 0, of which copy. */
  sitting: number
  copy: number
  dry: boolean
  /** When it was begun, by this browser's clock. */
  begun: number
  /** How each joint that is closed went, in their order. */
  closed: ('home' | 'gap' | 'short')[]
}

const name = (piece: string): string => `proud-rake.gluing.${piece}`

export function keptRun(piece: string): Run | null {
  try {
    return JSON.parse(localStorage.getItem(name(piece)) ?? 'null') as Run | null
  } catch {
    localStorage.removeItem(name(piece))
    return null
  }
}

export function keepRun(piece: string, run: Run | null): void {
  if (run) localStorage.setItem(name(piece), JSON.stringify(run))
  else localStorage.removeItem(name(piece))
}
