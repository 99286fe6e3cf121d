import { computed, ref, type Ref } from 'vue'

import type { LegFigures, Support } from '../api/types'
import { usePiece } from '../piece/store'

const index = ref(0)

/** The set of legs being looked at, its place in the piece, and its legs' figures. */
export function useSupport(): {
  index: Ref<number>
  base: Ref<string>
  support: Ref<Support | undefined>
  legs: Ref<LegFigures[]>
} {
  const store = usePiece()
  const at = computed({
    get: () => Math.min(index.value, Math.max(0, (store.piece?.supports.length ?? 1) - 1)),
    set: (to: number) => (index.value = to),
  })
  return {
    index: at,
    base: computed(() => `supports.${at.value}`),
    support: computed(() => store.piece?.supports[at.value]),
    legs: computed(() => (store.plan?.legs ?? []).filter((leg) => leg.support === at.value)),
  }
}
