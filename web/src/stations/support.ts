import { wordsOf } from '../fields/published'
import { computed, ref, type Ref } from 'vue'

import type { LegFigures, StakedLegs, Support } from '../api/types'
import { usePiece } from '../piece/store'

const index = ref(0)

/** The support being looked at, its place in the piece, and, of staked legs, their figures. */
export function useSupport(): {
  index: Ref<number>
  base: Ref<string>
  any: Ref<Support | undefined>
  support: Ref<StakedLegs | undefined>
  legs: Ref<LegFigures[]>
} {
  const store = usePiece()
  const at = computed({
    get: () => Math.min(index.value, Math.max(0, (store.piece?.supports.length ?? 1) - 1)),
    set: (to: number) => (index.value = to),
  })
  const any = computed(() => store.piece?.supports[at.value])
  return {
    index: at,
    base: computed(() => `supports.${at.value}`),
    any,
    support: computed(() => (any.value?.kind === 'staked_legs' ? any.value : undefined)),
    legs: computed(() => (store.plan?.legs ?? []).filter((leg) => leg.support === at.value)),
  }
}

/** What the maker calls each kind of support. */
export const SUPPORTS = Object.fromEntries(
  wordsOf('Piece', 'supports').map(({ value, title }) => [value, title]),
) as Record<Support['kind'], string>
