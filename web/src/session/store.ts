import { defineStore } from 'pinia'
import { ref } from 'vue'

import { api, ask, SIGNED_OUT } from '../api/client'
import type { Session } from '../api/types'

const HALF_HOUR_MS = 1_800_000

/** Who is signed in. */
export const useSession = defineStore('session', () => {
  const session = ref<Session | null>(null)
  const away = ref(false)
  /** What the workshop itself needs: room on its disk, a backup that failed. */
  const troubles = ref<string[]>([])
  let watching = 0

  async function load(): Promise<void> {
    try {
      session.value = await ask(api.GET('/api/session'))
      away.value = false
    } catch {
      // Nothing can be shown before it is known who is here: asked again whatever was wrong.
      away.value = true
      setTimeout(() => void load(), 2000)
    }
  }

  addEventListener(SIGNED_OUT, () => {
    if (session.value?.maker) void load()
  })

  /** How the workshop is, now and every half hour. */
  async function look(): Promise<void> {
    clearTimeout(watching)
    watching = window.setTimeout(() => void look(), HALF_HOUR_MS)
    try {
      const { data, error } = await api.GET('/api/health')
      const health = data ?? (error && 'troubles' in error ? error : undefined)
      troubles.value = health?.troubles ?? []
    } catch {
      // It is away: whoever asks it for something says so.
    }
  }

  async function signIn(name: string, password: string): Promise<void> {
    const body = { name, password }
    session.value = session.value?.first
      ? await ask(api.POST('/api/session/first', { body }))
      : await ask(api.POST('/api/session', { body }))
  }

  async function signOut(): Promise<void> {
    session.value = await ask(api.DELETE('/api/session'))
  }

  return { session, away, troubles, load, look, signIn, signOut }
})
