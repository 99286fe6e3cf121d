import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'

import { api, ask, Away, Refused } from '../api/client'
import type { BuildDocument, BuildOut, BuildStep } from '../api/types'
import { inTurn } from '../inTurn'
import { usePiece } from '../piece/store'
import { withDeeds } from './overlay'
import { type Deed, keepDeeds, keptDeeds, tell, type Waiting } from './queue'

const RETRY_MS = 1500

/**
 * The build of the open piece: its order, what is done, what runs. What is done at the bench holds at once;
 * it is told the workshop one thing after the other, and kept in this browser until the workshop has it.
 */
export const useBuild = defineStore('build', () => {
  const id = ref('')
  const build = shallowRef<BuildOut | null>(null)
  const deeds = shallowRef<Waiting[]>([])
  const away = ref(false)
  /** What there is to say: what became of a mishap, what a clock did, what was refused. */
  const said = ref('')
  const wrong = ref('')
  const copy = ref(1)
  const turns = inTurn()
  let telling = false
  /** Counts what the workshop was told. */
  let told = 0
  let retry = 0
  /** When a timer that runs was first seen running, by a clock that nobody sets. */
  const seen = new Map<string, number>()

  const steps = computed<BuildStep[]>(() =>
    build.value ? withDeeds(build.value, deeds.value) : [],
  )
  const step = (key: string): BuildStep | undefined => steps.value.find((one) => one.key === key)
  /** The step to go on with, as far as this browser knows. */
  const next = computed(() => {
    const first = build.value?.next
    if (first && step(first)?.state !== 'done') return first
    const open = steps.value.find((one) => one.state !== 'done' && one.state !== 'waiting')
    return open?.key ?? first ?? null
  })

  async function open(wanted: string, of = 1): Promise<void> {
    if (wanted !== id.value) {
      clearTimeout(retry)
      if (turns.waiting() && build.value) left.set(id.value, build.value)
      id.value = wanted
      build.value = null
      deeds.value = keptDeeds(wanted)
      seen.clear()
      said.value = wrong.value = ''
    }
    copy.value = of
    await look()
    if (deeds.value.length) void tellAll()
  }

  async function look(): Promise<void> {
    const [wanted, of, then] = [id.value, copy.value, told]
    if (!wanted) return
    try {
      const got = await ask(
        api.GET('/api/pieces/{id}/build', {
          params: { path: { id: wanted }, query: { copy_number: of } },
        }),
      )
      // What was told meanwhile is not in it: what came back with that is newer.
      if (wanted === id.value && of === copy.value && then === told) take(got)
      away.value = false
    } catch (error) {
      if (wanted !== id.value) return
      if (error instanceof Away) {
        away.value = true
        if (!build.value) retry = window.setTimeout(() => void look(), RETRY_MS)
      } else if (error instanceof Refused) wrong.value = error.problem.detail
      else throw error
    }
  }

  function take(got: BuildOut): void {
    build.value = got
    wrong.value = ''
    if (got.said) said.value = got.said
    for (const one of got.steps)
      if (one.since && !seen.has(one.key)) seen.set(one.key, performance.now())
      else if (!one.since) seen.delete(one.key)
  }

  /** Something was done: it holds here at once. */
  function did(deed: Deed): void {
    said.value = ''
    const one = { ...deed, at: Date.now(), token: crypto.randomUUID() } as Waiting
    put([...deeds.value, one])
    void tellAll()
  }

  /** When the workshop knows everything, or does not answer. */
  async function settled(): Promise<void> {
    while (deeds.value.length && !away.value) await new Promise((go) => setTimeout(go, 30))
  }

  function put(those: Waiting[]): void {
    deeds.value = those
    if (!keepDeeds(id.value, those))
      said.value = 'This browser keeps no more: leave the page open until the workshop answers.'
  }

  async function tellAll(): Promise<void> {
    if (telling) return
    telling = true
    const mine = id.value
    clearTimeout(retry)
    while (mine === id.value && deeds.value.length) {
      const [first] = deeds.value
      if (!first) break
      try {
        const got = await tell(mine, first)
        if (mine !== id.value) break
        put(deeds.value.slice(1))
        told += 1
        away.value = false
        if (got && got.copy_number === copy.value) take(got)
        // What is cut next may follow from what was lost.
        if (first.what === 'wrong') void usePiece().catchUp()
      } catch (error) {
        if (mine !== id.value) break
        if (error instanceof Away) {
          away.value = true
          retry = window.setTimeout(() => void tellAll(), RETRY_MS)
          break
        }
        if (!(error instanceof Refused)) {
          telling = false
          throw error
        }
        put(deeds.value.slice(1))
        said.value = error.problem.detail
        await look()
      }
    }
    telling = false
  }

  /** How long a timer ran by this page's own clock; null where it was not watched from its start. */
  function counted(one: BuildStep): number | null {
    const from = seen.get(one.key)
    if (!one.since || from === undefined || !build.value) return null
    // Seen first when it ran already: what the workshop counted until then belongs to it.
    const ran = (new Date(build.value.now).getTime() - new Date(one.since).getTime()) / 1000
    return ran < 2 && ran > -2 ? (performance.now() - from) / 1000 : null
  }

  function tick(one: BuildStep, units = one.units, minutes: number | null = null): void {
    const body = {
      step: one.key,
      units: units.map(({ key, operation, of }) => ({ key, operation, of })),
      copy_number: copy.value,
      minutes,
      seconds: counted(one),
    }
    did({ what: 'done', body })
  }
  function untick(one: BuildStep, units = one.units): void {
    const body = {
      step: one.key,
      units: units.map(({ key, operation, of }) => ({ key, operation, of })),
      copy_number: copy.value,
      minutes: null,
      seconds: null,
    }
    did({ what: 'undone', body })
  }
  function time(one: BuildStep, run: boolean): void {
    const seconds = run ? null : counted(one)
    if (run) seen.set(one.key, performance.now())
    did({ what: 'timer', body: { step: one.key, run, copy_number: copy.value, seconds } })
  }

  /** Change the maker's own order; whether the workshop took it. */
  function change(how: (document: BuildDocument) => Partial<BuildDocument>): Promise<boolean> {
    const mine = id.value
    return turns.next(() => send(mine, how))
  }
  /** Pieces that were left while changes of them were on their way. */
  const left = new Map<string, BuildOut>()

  async function send(
    mine: string,
    how: (document: BuildDocument) => Partial<BuildDocument>,
  ): Promise<boolean> {
    const had = mine === id.value ? build.value : left.get(mine)
    if (!had) return false
    const document = { ...had.document, ...how(had.document) } as Record<string, unknown>
    try {
      const got = await ask(
        api.PUT('/api/pieces/{id}/build', {
          params: { path: { id: mine } },
          body: { document, based_on: had.number, copy_number: copy.value },
        }),
      )
      if (mine !== id.value) {
        left.set(mine, got)
        return true
      }
      said.value = ''
      told += 1
      take(got)
      return true
    } catch (error) {
      if (error instanceof Away) said.value = 'The workshop does not answer: change it again later.'
      else if (error instanceof Refused) {
        said.value = error.problem.detail
        await look()
      } else throw error
      return false
    }
  }

  async function keepOrder(): Promise<void> {
    try {
      const params = { path: { id: id.value } }
      take(await ask(api.PUT('/api/pieces/{id}/build/kept', { params })))
      said.value = 'Kept: the next piece of this kind begins with this order.'
    } catch (error) {
      if (error instanceof Away) said.value = 'The workshop does not answer: keep it later.'
      else if (error instanceof Refused) said.value = error.problem.detail
      else throw error
    }
  }

  return {
    id,
    build,
    steps,
    step,
    next,
    deeds,
    away,
    said,
    wrong,
    copy,
    open,
    look,
    did,
    settled,
    tick,
    untick,
    time,
    change,
    keepOrder,
  }
})
