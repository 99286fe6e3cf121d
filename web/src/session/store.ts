import { defineStore } from 'pinia'
import { ref } from 'vue'

import { api, ask, SIGNED_OUT } from '../api/client'
import type { Session } from '../api/types'

/** Who is signed in. */
export const useSession = defineStore('session', () => {
  const session = ref<Session | null>(null)
  const away = ref(false)

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

  async function signIn(name: string, password: string): Promise<void> {
    const body = { name, password }
    session.value = session.value?.first
      ? await ask(api.POST('/api/session/first', { body }))
      : await ask(api.POST('/api/session', { body }))
  }

  async function signOut(): Promise<void> {
    session.value = await ask(api.DELETE('/api/session'))
  }

  return { session, away, load, signIn, signOut }
})
