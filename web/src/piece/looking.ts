import { reactive, ref, shallowRef } from 'vue'

import type { Drawings, Plan } from '../api/types'
import type { Open, StationName } from './open'

const KEPT = 'proud-rake.tool.'
/** The tool that was used last at a station, by its id. */
export const lastTool = (station: string): string => localStorage.getItem(KEPT + station) ?? ''
export function keepTool(station: string, by: string): void {
  localStorage.setItem(KEPT + station, by)
}

/** What of a station is looked at, of things there are many of: a card, a step, a part. */
export interface Opened {
  card: string
  step: number
  part: string
  /** What comes when the parts are made: marks to write on them, the order of assembly. */
  more: boolean
}
const CLOSED: Opened = { card: '', step: 0, part: '', more: false }

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

  const opened = reactive<Opened>({ ...CLOSED })
  /** Whether all of a station is asked for at once: at the bench, where nothing may have to be fetched. */
  const whole = ref(false)

  /** Whether what is looked at has come. */
  function here(what: Partial<Opened>): boolean {
    const drawn = drawings.value
    if (what.card && !plan.value?.setups.some((card) => card.id === what.card)) return false
    if (what.part && !drawn?.sticks.some((view) => view.name === what.part)) return false
    if (what.more && !drawn?.marks.length) return false
    const step = what.step === undefined ? '' : `step.${what.step + 1}`
    return !step || (drawn?.layout.some((view) => view.name === step) ?? false)
  }

  function forget(): void {
    Object.assign(opened, CLOSED)
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

  /** A station was answered. A drag is told of no stations: those that were known stay, and the one to
   * carry on at. */
  function answered(name: StationName, of: Plan, drawn: Drawings, live: boolean): void {
    const had = live ? plan.value : null
    const whole = had?.stations?.length ? { ...of, stations: had.stations, next: had.next } : of
    seen.set(name, { plan: whole, drawings: drawn })
    if (name === station.value) turnTo(name)
  }

  /** What the other stations showed is of a moment ago: turned to, they are laid out anew. */
  function othersAreOld(): void {
    for (const name of [...seen.keys()]) if (name !== station.value) seen.delete(name)
  }

  return {
    opened,
    whole,
    here,
    close: () => Object.assign(opened, CLOSED),
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
