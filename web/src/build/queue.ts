import { api, ask } from '../api/client'
import type { BuildOut } from '../api/types'

/** One thing that was done at the bench and that the workshop has to be told. */
export type Deed =
  | { what: 'done' | 'undone'; body: Ticking }
  | { what: 'timer'; body: Timing }
  | { what: 'wrong'; body: Wrong }
  | { what: 'say'; body: Saying }
  | { what: 'photo'; body: Picture }
  | { what: 'glued'; body: Glued }
/** A deed on its way: when it was done by this browser's clock, and which copy it was done on. */
export type Waiting = Deed & { at: number; token: string }

export interface Ticking {
  step: string
  units: { key: string; operation: string; of: string }[]
  copy_number: number
  minutes: number | null
  seconds: number | null
}
export interface Timing {
  step: string
  run: boolean
  copy_number: number
  seconds: number | null
}
export interface Wrong {
  step: string
  of: string
  rescue: string
  copy_number: number
  amount: string
  other: string
  note: string
}
export interface Saying {
  sort: 'note' | 'lesson' | 'repair' | 'time'
  says: string
  step: string
  copy_number: number
  minutes: number | null
}
export interface Glued {
  steps: string[]
  dry: boolean
  seconds: number
  joints: { name: string; outcome: 'home' | 'gap' | 'short' | 'open' }[]
  stopped: boolean
  note: string
  copy_number: number
}
export interface Picture {
  step: string
  says: string
  copy_number: number
  /** The picture, a JPEG in base64. */
  picture: string
}

const name = (id: string): string => `proud-rake.deeds.${id}`

/** What was done and is not told yet, kept in this browser. */
export function keptDeeds(id: string): Waiting[] {
  try {
    return JSON.parse(localStorage.getItem(name(id)) ?? '[]') as Waiting[]
  } catch {
    localStorage.removeItem(name(id))
    return []
  }
}

/** Keep what waits; whether there was room for it. */
export function keepDeeds(id: string, deeds: Waiting[]): boolean {
  try {
    if (deeds.length) localStorage.setItem(name(id), JSON.stringify(deeds))
    else localStorage.removeItem(name(id))
    return true
  } catch {
    // Full of photographs: they wait in this page alone.
    return false
  }
}

function bytes(coded: string): Blob {
  const raw = Uint8Array.from(atob(coded), (letter) => letter.charCodeAt(0))
  return new Blob([raw], { type: 'image/jpeg' })
}

/** Tell the workshop one deed; the build as it is then, where it says so. */
export async function tell(id: string, deed: Waiting): Promise<BuildOut | null> {
  const params = { path: { id } }
  const { token } = deed
  const ago = Math.max(0, (Date.now() - deed.at) / 1000)
  switch (deed.what) {
    case 'done':
      return await ask(
        api.PUT('/api/pieces/{id}/build/done', { params, body: { ...deed.body, ago, token } }),
      )
    case 'undone':
      return await ask(
        api.PUT('/api/pieces/{id}/build/undone', { params, body: { ...deed.body, ago, token } }),
      )
    case 'timer':
      return await ask(
        api.PUT('/api/pieces/{id}/build/timer', { params, body: { ...deed.body, ago } }),
      )
    case 'wrong':
      return await ask(
        api.PUT('/api/pieces/{id}/build/wrong', { params, body: { ...deed.body, token } }),
      )
    case 'glued':
      return await ask(
        api.PUT('/api/pieces/{id}/build/glued', { params, body: { ...deed.body, token } }),
      )
    case 'say':
      return await ask(api.POST('/api/pieces/{id}/log', { params, body: { ...deed.body, token } }))
    case 'photo': {
      const { picture, ...said } = deed.body
      await ask(
        api.PUT('/api/pieces/{id}/log/photo', {
          params: { ...params, query: { ...said, token } },
          body: bytes(picture) as unknown as never,
          bodySerializer: (body: unknown) => body as Blob,
          headers: { 'Content-Type': 'image/jpeg' },
        }),
      )
      return null
    }
  }
}
