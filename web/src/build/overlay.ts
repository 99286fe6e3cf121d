import type { BuildOut, BuildStep } from '../api/types'
import type { Waiting } from './queue'

/** The steps as they are once the workshop knows what was done here: what is ticked is ticked at once. */
export function withDeeds(build: BuildOut, deeds: Waiting[]): BuildStep[] {
  return deeds.reduce((steps, deed) => steps.map((step) => after(step, deed, build)), build.steps)
}

function after(step: BuildStep, deed: Waiting, build: BuildOut): BuildStep {
  if (!('step' in deed.body) || deed.body.step !== step.key) return step
  if (deed.body.copy_number !== build.copy_number) return step
  if (deed.what === 'timer') return timed(step, deed.body.run, deed.at, deed.body.seconds)
  if (deed.what !== 'done' && deed.what !== 'undone') return step
  const done = deed.what === 'done'
  const named = deed.body.units.map((unit) => `${unit.key} ${unit.operation} ${unit.of}`)
  const units = step.units.map((unit) =>
    !named.length || named.includes(`${unit.key} ${unit.operation} ${unit.of}`)
      ? { ...unit, done }
      : unit,
  )
  const ticked = units.filter((unit) => unit.done).length
  const state = ticked === units.length ? 'done' : ticked ? 'begun' : 'open'
  const ended = state === 'done' ? { since: null, seconds: 0 } : {}
  return { ...step, units, state, ...ended }
}

function timed(step: BuildStep, run: boolean, at: number, seconds: number | null): BuildStep {
  if (run) return step.since ? step : { ...step, since: new Date(at).toISOString() }
  return { ...step, since: null, seconds: step.seconds + (seconds ?? 0) }
}
