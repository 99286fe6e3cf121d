import { ref, shallowRef } from 'vue'

import type { Drawings, Plan } from '../api/types'
import type { Open, StationName } from './open'

/** What is on the bench: the answer of the station that was turned to last, and how it is looked at. */
export function useLooking({ station }: Open) {
  const plan = shallowRef<Plan | null>(null)
  const drawings = shallowRef<Drawings | null>(null)
  /** The station that plan and drawings were asked for: they hold no other's cards. */
  const turned = ref<StationName>('stance')
  /** What each station showed last, so that turning to it again shows it at once. */
  const seen = new Map<StationName, { plan: Plan; drawings: Drawings }>()
  /** The part that is pointed at. */
  const lit = ref('')
  /** What the stance shows besides its plan: the side, a look along a bearing, or the solids. */
  const shown = ref<'side' | 'sight' | 'solid'>('side')
  const along = ref(0)
  /** How many times over the unlikeness of the feet is drawn at Level. */
  const exaggerate = ref(1)

  function forget(): void {
    plan.value = drawings.value = null
    seen.clear()
    shown.value = 'side'
  }

  /** The answer of a station takes the bench, where there is one yet. */
  function turnTo(name: StationName): void {
    const last = seen.get(name)
    if (!last) return
    plan.value = last.plan
    drawings.value = last.drawings
    turned.value = name
  }

  /** A station was answered. A drag is told of no stations: those that were known stay. */
  function answered(name: StationName, of: Plan, drawn: Drawings, live: boolean): void {
    const stations = live ? plan.value?.stations : undefined
    const whole = stations?.length ? { ...of, stations } : of
    seen.set(name, { plan: whole, drawings: drawn })
    if (name === station.value) turnTo(name)
  }

  /** What the other stations showed is of a moment ago: turned to, they are laid out anew. */
  function othersAreOld(): void {
    for (const name of [...seen.keys()]) if (name !== station.value) seen.delete(name)
  }

  return {
    plan,
    drawings,
    turned,
    lit,
    shown,
    along,
    exaggerate,
    forget,
    turnTo,
    answered,
    othersAreOld,
  }
}
export type Looking = ReturnType<typeof useLooking>
