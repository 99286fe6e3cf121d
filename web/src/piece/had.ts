import type { Piece, Restate } from '../api/types'
import { valueAt } from '../paths'

type Part = Record<string, unknown>

/** Where the part is that is to be another kind; nothing for what is only said another way. */
function partOf(ask: Partial<Restate>): string {
  const at = `supports.${ask.support ?? 0}`
  const parts: Record<string, string> = {
    outline: 'top.outline',
    hollow: 'top.hollow',
    support: at,
    placement: `${at}.placement`,
    joint: `${at}.joint`,
    taper: `${at}.taper`,
    held: `${at}.held`,
    outside: `${at}.outside`,
  }
  return parts[ask.what ?? ''] ?? ''
}
const kindOf = (part: Part): string => {
  const kind = part['kind'] ?? part['way']
  // What there is only one kind of is there, or is not.
  return typeof kind === 'string' ? kind : 'on'
}

/** What a part was like as each kind it has been, while the piece is open: choosing one again gives its sizes back. */
export function useHad() {
  const had = new Map<string, Part>()

  /** The part as it was when it was last of the kind asked for, and where it stands; what it is now is kept. */
  function again(piece: Piece, ask: Partial<Restate>): { path: string; part: Part } | null {
    const path = partOf(ask)
    const now = path ? (valueAt(piece, path) as Part | null | undefined) : null
    if (path && now) had.set(`${path} ${kindOf(now)}`, now)
    const part = had.get(`${path} ${ask.to ?? ''}`)
    return part && now !== part ? { path, part } : null
  }

  return { again, forget: () => had.clear() }
}
