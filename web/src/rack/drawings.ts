import { reactive } from 'vue'

import { api, ask } from '../api/client'
import type { View } from '../api/types'

const MOST = 24
const TOGETHER_MS = 40

/** The pictures on the rack: asked for when they come into sight, those of one moment together. */
export function useDrawings() {
  const drawings = reactive<Record<string, View>>({})
  /** Of which state a picture was drawn: a piece that changed is asked for anew. */
  const of = new Map<string, string>()
  let wanted = new Set<string>()
  let timer = 0

  function want(id: string, state: string): void {
    if (of.get(id) === state) return
    of.set(id, state)
    wanted.add(id)
    clearTimeout(timer)
    timer = window.setTimeout(() => void fetch(), TOGETHER_MS)
  }

  async function fetch(): Promise<void> {
    const ids = [...wanted]
    wanted = new Set()
    for (let k = 0; k < ids.length; k += MOST) {
      const query = { id: ids.slice(k, k + MOST) }
      try {
        Object.assign(drawings, await ask(api.GET('/api/pieces/drawings', { params: { query } })))
      } catch {
        // The rack itself says that nobody answers; what is in sight is asked for again with it.
        for (const id of query.id) of.delete(id)
      }
    }
  }

  return { drawings, want }
}
