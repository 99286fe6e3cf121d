import { computed, type Ref, ref } from 'vue'

import { api, ask, Away, Refused } from '../api/client'
import type { Fault, Piece, Proof, ReadingOut } from '../api/types'
import { inTurn } from '../inTurn'
import { without } from '../paths'
import { faultSaid } from '../said'
import { useShop } from '../shop/store'
import type { Given, ReadingStep, Step } from './history'
import { keepUnsent, type More, type Unsent, unsentOf } from './kept'

const RETRY_MS = 1500
const AWAY = 'The workshop does not answer. It is kept here and sent as soon as it does.'

/** What the readings of the open piece need of it. */
interface Open {
  /** The piece's id; empty while something is rehearsed. */
  id: Ref<string>
  piece: Ref<Piece | null>
  /** The hidden truth that is rehearsed on, if anything is. */
  rehearsal: Ref<{ start: string; seed: number } | null>
  /** What is wrong, by the field it was typed into. */
  faults: Ref<Record<string, Fault>>
  /** A proof that is asked; nothing for one that is not. */
  proofOf: (proof: string) => Proof | undefined
  /** A reading was given, changed or taken back: a step to be taken back. */
  did: (step: Omit<ReadingStep, 'at' | 'station' | 'kind'>) => Step
  /** It was refused: no step. */
  strike: (step: Step) => void
  /** Work everything out again. */
  replan: () => void
}

/** Bare figures mean the units of now: said with them, so that they stay so. */
function whole(typed: string): string {
  const unit = useShop().system === 'inch' ? ' in' : ' mm'
  return /^[\d\s./-]+$/.test(typed) ? typed + unit : typed
}

/** The readings of a piece: typed, or taken from an instrument; none is lost while the server is away. */
export function useReadings(open: Open) {
  const { id, piece, rehearsal, faults, proofOf, did, strike, replan } = open
  const kindOf = (proof: string): string => proofOf(proof)?.kind ?? ''
  /** Which of several like pieces is read. */
  const copy = ref(1)
  /** The answers of all of them, and of the one that is read. */
  const every = ref<ReadingOut[]>([])
  const readings = computed(() => every.value.filter((r) => r.copy_number === copy.value))
  /** What the instrument last said, and for which proof. */
  const heard = ref<{ proof: string; state: string; said: string } | null>(null)
  /** What was typed and is not in the workshop yet; of the one that is read by its proofs. */
  const allUnsent = ref<Unsent>({})
  const unsent = computed(() => {
    const mine = Object.entries(allUnsent.value).filter(
      ([, one]) => (one.copy_number ?? 1) === copy.value,
    )
    return Object.fromEntries(mine.map(([key, one]) => [one.proof ?? key, one]))
  })
  const keyOf = (proof: string, of: number): string => (of > 1 ? `${proof} of ${of}` : proof)
  /** How many are on their way. */
  const sending = ref(0)
  const lines = new Map<string, string>()
  let asked = 0
  let timer = 0
  const turns = inTurn()

  /** The readings as they are sent: a rehearsal's have been nowhere yet, so as they were typed. */
  function told(): { proof: string; kind: string; value: number | string; sure: boolean }[] {
    return readings.value.map(({ proof, kind, value, typed, sure }) => ({
      proof,
      kind,
      sure,
      value: rehearsal.value ? typed : value,
    }))
  }

  /** The piece is put away. */
  function forget(): void {
    clearTimeout(timer)
    heard.value = null
    every.value = []
    allUnsent.value = {}
    copy.value = 1
    sending.value = 0
  }

  /** What the workshop has by now; whether anything is new in it. */
  function refresh(those: ReadingOut[]): boolean {
    const told = (many: ReadingOut[]): string =>
      JSON.stringify(many.map((one) => [one.proof, one.copy_number, one.number, one.shown]).sort())
    if (sending.value || told(those) === told(every.value)) return false
    every.value = those
    return true
  }

  /** A piece was opened: its readings, and those that are still to be sent. */
  function begin(those: ReadingOut[]): void {
    forget()
    every.value = those
    allUnsent.value = unsentOf(id.value)
    if (Object.keys(allUnsent.value).length) void resend()
  }

  function put(one: ReadingOut | null, proof: string, of = copy.value): void {
    const others = every.value.filter((r) => r.proof !== proof || r.copy_number !== of)
    every.value = one ? [...others, one] : others
    faults.value = without(faults.value, `readings.${proof}`)
    replan()
  }

  /** What waits for one piece, changed where it is kept: by now another piece may be open. */
  function wait(of: string, change: (waiting: Unsent) => Unsent): void {
    const waiting = change(unsentOf(of))
    keepUnsent(of, waiting)
    if (of === id.value) allUnsent.value = waiting
  }

  /** Answer a proof, or take the answer back with nothing typed. */
  async function answer(proof: string, typed: string, more: More = {}): Promise<void> {
    await give(proof, typed, more, note(proof, typed, more))
  }

  /** Give an answer once more, or take it back: a step back or forth. */
  async function again({ proof, copy: of }: ReadingStep, to: Given | null): Promise<void> {
    const had = given(proof, of)
    const { typed = '', ...more } = to ?? {}
    // Only what is said about it was another: it stands as it was taken.
    const keep = had !== null && had.typed === typed
    await give(proof, typed, { ...more, keep, copy_number: of }, null)
  }

  /** The answer that stands beside a proof. */
  function given(proof: string, of = copy.value): Given | null {
    const had = every.value.find((r) => r.proof === proof && r.copy_number === of)
    return had ? { typed: had.typed, tool: had.tool, note: had.note, sure: had.sure } : null
  }

  function note(proof: string, typed: string, more: More): Step | null {
    const before = given(proof)
    if (!before && !typed.trim()) return null
    const { tool = before?.tool ?? '', sure = false } = more
    const after = typed.trim() ? { typed, tool, note: more.note ?? before?.note ?? '', sure } : null
    const several = (piece.value?.make ?? 1) > 1 ? `no. ${copy.value}, ` : ''
    const what = `${several}${proofOf(proof)?.short ?? 'a reading'}`
    const was = before ? before.typed : 'not read'
    const says = `${what}: ${was} → ${after ? typed : 'taken back'}`
    return did({ proof, copy: copy.value, before, after, says })
  }

  async function give(proof: string, typed: string, more: More, step: Step | null): Promise<void> {
    if (rehearsal.value) {
      const kind = kindOf(proof)
      const mine = {
        proof,
        kind,
        value: 0,
        typed: whole(typed),
        taken: '',
        by: null,
        note: '',
        number: 0,
        copy_number: copy.value,
        as_read: '',
      }
      const { tool = '', sure = false } = more
      put(typed.trim() ? { ...mine, shown: mine.typed, tool, sure } : null, proof)
      return
    }
    const mine = id.value
    const now = { bare: useShop().system, kind: kindOf(proof), copy_number: copy.value }
    const said = { ...now, ...more }
    sending.value += 1
    try {
      await turns.next(() => deliver(mine, proof, typed, said, step))
    } finally {
      // Another piece that was opened meanwhile counts its own.
      if (mine === id.value) sending.value = Math.max(0, sending.value - 1)
    }
  }

  /** The number of the answer that stands beside a proof, 0 for none: what is typed follows it. */
  function seen(proof: string, of: number): number {
    return every.value.find((r) => r.proof === proof && r.copy_number === of)?.number ?? 0
  }

  async function deliver(
    mine: string,
    proof: string,
    typed: string,
    more: More,
    step: Step | null = null,
  ): Promise<void> {
    const field = `readings.${proof}`
    const of = more.copy_number ?? 1
    const key = keyOf(proof, of)
    const said = { typed, proof, based_on: seen(proof, of), ...more }
    let fault: Fault | undefined
    try {
      await send(mine, proof, typed, of, more)
      wait(mine, (waiting) => without(waiting, key))
    } catch (error) {
      if (error instanceof Away) {
        wait(mine, (waiting) => ({ ...waiting, [key]: said }))
        fault = faultSaid(field, AWAY)
        if (mine === id.value) later()
      } else if (error instanceof Refused) {
        wait(mine, (waiting) => without(waiting, key))
        if (step && mine === id.value) strike(step)
        fault = error.problem.faults?.[0]
        if (error.problem.status === 409) {
          fault = faultSaid(field, `${error.problem.detail} You: ${typed}.`)
          await theirsOf(mine)
        }
      } else throw error
    }
    if (fault && mine === id.value && of === copy.value)
      faults.value = { ...faults.value, [field]: fault }
  }

  /** What stands in the workshop now: somebody else read meanwhile. */
  async function theirsOf(mine: string): Promise<void> {
    const got = await ask(api.GET('/api/pieces/{id}', { params: { path: { id: mine } } }))
    if (mine !== id.value) return
    every.value = got.readings
    replan()
  }

  async function send(
    mine: string,
    proof: string,
    typed: string,
    of: number,
    more: More,
  ): Promise<void> {
    const path = { id: mine, proof }
    if (!typed.trim()) {
      const params = { path, query: { copy_number: of } }
      await ask(api.DELETE('/api/pieces/{id}/readings/{proof}', { params }))
      if (mine === id.value) put(null, proof, of)
      return
    }
    const had = given(proof, of)
    const body = {
      typed,
      bare: more.bare ?? useShop().system,
      tool: more.tool ?? had?.tool ?? '',
      note: more.note ?? had?.note ?? '',
      sure: more.sure ?? false,
      keep: more.keep ?? false,
      kind: more.kind ?? kindOf(proof),
      based_on: more.based_on ?? seen(proof, of),
      copy_number: of,
    }
    const got = await ask(api.PUT('/api/pieces/{id}/readings/{proof}', { params: { path }, body }))
    if (mine === id.value) put(got, proof, of)
  }

  function later(): void {
    clearTimeout(timer)
    timer = window.setTimeout(() => void resend(), RETRY_MS)
  }

  /** Send what could not be sent, one after the other; those that fail again wait again. */
  async function resend(): Promise<void> {
    const mine = id.value
    for (const [key, { typed, proof = key, ...more }] of Object.entries(allUnsent.value)) {
      if (mine !== id.value) return
      await deliver(mine, proof, typed, more)
    }
  }

  /** Take a reading from the instrument on the bench; whether one came. */
  async function take(proof: string): Promise<boolean> {
    if (!piece.value) return false
    const kind = kindOf(proof)
    asked += 1
    try {
      const got = await ask(
        api.POST('/api/gauges/read', {
          body: {
            piece: piece.value,
            readings: told(),
            bare: useShop().system,
            proof,
            count: asked,
            before: lines.get(kind) ?? '',
            seed: rehearsal.value?.seed ?? null,
            size: 1,
          },
        }),
      )
      if (got.heard.line) lines.set(kind, got.heard.line)
      heard.value = { proof, state: got.heard.state, said: got.heard.said }
      if (got.heard.state !== 'read') return false
      const tool = `${got.instrument.replace('_', ' ')}, simulated`
      await answer(proof, got.heard.typed, { tool })
      return true
    } catch (error) {
      const said =
        error instanceof Refused
          ? (error.problem.faults?.[0]?.do ?? error.problem.title)
          : 'The workshop does not answer: take it again.'
      heard.value = { proof, state: 'silent', said }
      return false
    }
  }

  /** Another of several like pieces is read now. */
  function turnTo(of: number): void {
    copy.value = of
    const ofReadings = Object.keys(faults.value).filter((at) => at.startsWith('readings.'))
    for (const at of ofReadings) faults.value = without(faults.value, at)
    replan()
  }

  /** One reading is not to be had: it goes, where nothing of it is kept. */
  const drop = (one: ReadingOut): void => {
    every.value = every.value.filter((other) => other !== one)
  }

  return {
    copy,
    turnTo,
    /** When every answer that was given is in the workshop, or waits for it. */
    settled: turns.settled,
    drop,
    allUnsent,
    readings,
    heard,
    unsent,
    sending,
    told,
    forget,
    begin,
    refresh,
    answer,
    again,
    take,
  }
}
