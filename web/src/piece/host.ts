import type { Host } from '../fields/host'
import { usePiece } from './store'

/** Whether a caution about one place of the piece is about this field: its own, or its part's. */
function bears(about: string, path: string): boolean {
  return about === path || (about.split('.').length > 2 && path.startsWith(`${about}.`))
}

/** The open piece, as forms see it. */
export function pieceHost(): Host {
  const store = usePiece()
  return {
    root: 'Piece',
    document: () => store.piece,
    text: (path) => store.chosen[path]?.text ?? '',
    fault: (path) => store.faults[path],
    set: (path, value, turning) => store.set(path, value, turning),
    stamp: () => store.plan,
    busy: (path) => store.waits(path),
    waiting: (path) => store.status === 'away' && store.waits(path),
    caution: (path) => {
      const found = (store.plan?.findings ?? []).find(
        (one) => one.level !== 'note' && bears(one.field, path),
      )
      return found ? `${found.text} ${found.mend}` : ''
    },
  }
}
