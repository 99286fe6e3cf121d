import { useStorage } from '@vueuse/core'
import { computed } from 'vue'

import type { Tool } from '../api/types'

const MOST = 12

/** Tools that were taken out of the shop: one by itself with its place, or all of them at once. */
interface Gone {
  says: string
  at: number
  tools: Tool[]
}

/** What was taken out of the shop in this browser, to be put back; it lasts until it is. */
export function useGone() {
  const gone = useStorage<Gone[]>('proud-rake.tools-gone', [])
  const last = computed(() => gone.value.at(-1) ?? null)

  function remember(one: Gone): void {
    gone.value = [...gone.value, one].slice(-MOST)
  }

  /** The tools with what was taken out last; what came since stays, but for a set that took their place. */
  function putBack(now: Tool[]): Tool[] {
    const one = last.value
    if (!one) return now
    gone.value = gone.value.slice(0, -1)
    if (one.at < 0) return one.tools
    const missing = one.tools.filter((tool) => !now.some((other) => other.id === tool.id))
    return [...now.slice(0, one.at), ...missing, ...now.slice(one.at)]
  }

  return { last, remember, putBack }
}
