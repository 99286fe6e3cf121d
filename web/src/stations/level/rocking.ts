import { usePreferredReducedMotion, useRafFn } from '@vueuse/core'
import { computed, ref, type ComputedRef, type Ref } from 'vue'

const SWING_MS = 900
const SWINGS = 6

/**
 * How far a piece has tipped from one way of standing (0) to the other (1), rocking to and fro a few
 * times when it is set going, as a pushed stool would; still for those who want no motion.
 */
export function useRocking(): {
  /** Share of the way, 0 to 1. */
  at: Ref<number>
  /** Whether it rocks just now. */
  going: Ref<boolean>
  /** Whether it may move at all. */
  moves: ComputedRef<boolean>
  /** Push it, or hold it still. */
  push: () => void
} {
  const at = ref(0)
  const going = ref(false)
  const motion = usePreferredReducedMotion()
  const moves = computed(() => motion.value !== 'reduce')
  let start = 0
  const raf = useRafFn(
    ({ timestamp }) => {
      start ||= timestamp
      const swings = (timestamp - start) / SWING_MS
      if (swings >= SWINGS) return stop()
      // It falls from one way of standing to the other and rests there a moment.
      const share = Math.min(1, (swings % 1) * 1.6)
      const fallen = share * share * (3 - 2 * share)
      at.value = Math.floor(swings) % 2 === 0 ? fallen : 1 - fallen
    },
    { immediate: false },
  )

  function stop(): void {
    raf.pause()
    going.value = false
    at.value = 0
  }

  function push(): void {
    if (going.value) return stop()
    start = 0
    going.value = true
    raf.resume()
  }
  return { at, going, moves, push }
}
