import { type Ref, shallowRef } from 'vue'

import { api, ask, Away, Refused } from '../api/client'
import type { Clash, MergeOut, Piece, PieceOut } from '../api/types'
import { without } from '../paths'

/** Two changes of one field: the other state, and the places to choose at. */
export interface Clashing {
  theirs: PieceOut
  clashes: Clash[]
}
/** What somebody else did meanwhile that stands here now. */
export interface Meanwhile {
  by: string
  says: string
}

/** What putting together needs of the open piece. */
interface Open {
  id: Ref<string>
  piece: Ref<Piece | null>
  /** Take over the piece with both changes; `theirs` is what the workshop has. */
  adopt: (piece: Piece, theirs: PieceOut) => void
}

const WHOLE: Clash = { path: '', what: 'the piece', mine: 'yours', theirs: 'the other' }

/** Two changes of one piece: put together where they touch different things, shown where they do not. */
export function useTogether({ id, piece, adopt }: Open) {
  const clashing = shallowRef<Clashing | null>(null)
  const meanwhile = shallowRef<Meanwhile | null>(null)
  const picks = shallowRef<Record<string, 'mine' | 'theirs'>>({})
  let base: Piece | null = null

  function forget(): void {
    clashing.value = meanwhile.value = null
    picks.value = {}
    base = null
  }

  /** Both changes in one piece, of which `take` goes to theirs where they clash. */
  function merged(was: Piece, mine: Piece, theirs: Piece, take: string[] = []): Promise<MergeOut> {
    return ask(api.POST('/api/merge', { body: { base: was, mine, theirs, take } }))
  }

  /** The state both changes were made from; nothing where the program cannot read it any more. */
  async function stateOf(of: string, number: number): Promise<Piece | null> {
    try {
      const path = { id: of, number }
      const got = await ask(api.GET('/api/pieces/{id}/revisions/{number}', { params: { path } }))
      return got.piece
    } catch (error) {
      if (error instanceof Refused) return null
      throw error
    }
  }

  /** What the workshop has by now, and what was done here since revision `from`. */
  async function bring(theirs: PieceOut, from: number): Promise<void> {
    const of = id.value
    base = await stateOf(of, from)
    while (of === id.value && piece.value) {
      const mine = piece.value
      const both = base && (await merged(base, mine, theirs.piece))
      if (of !== id.value) return
      // Something was done here while it was put together: once more, with that.
      if (piece.value !== mine) continue
      const clashes = both ? both.clashes : [WHOLE]
      if (clashes.length || !both) {
        picks.value = {}
        clashing.value = { theirs, clashes }
        return
      }
      if (both.says) meanwhile.value = { by: theirs.saved_by ?? 'Somebody', says: both.says }
      adopt(both.piece, theirs)
      return
    }
  }

  /** One of two values is chosen; with the last one the piece is whole again. */
  async function pick(path: string, whose: 'mine' | 'theirs'): Promise<void> {
    const now = clashing.value
    if (!now || !piece.value) return
    picks.value = { ...picks.value, [path]: whose }
    if (now.clashes.some((clash) => !picks.value[clash.path])) return
    const take = Object.keys(picks.value).filter((at) => picks.value[at] === 'theirs')
    let made: Piece
    if (picks.value[''] || !base)
      made = picks.value[''] === 'theirs' ? now.theirs.piece : piece.value
    else {
      try {
        made = (await merged(base, piece.value, now.theirs.piece, take)).piece
      } catch (error) {
        if (!(error instanceof Away)) throw error
        // Nobody answered: it is chosen once more.
        picks.value = without(picks.value, path)
        return
      }
    }
    clashing.value = null
    adopt(made, now.theirs)
  }

  return { clashing, meanwhile, picks, forget, merged, bring, pick }
}
