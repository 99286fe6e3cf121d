import { type Ref, ref } from 'vue'

import { api, ask } from './api/client'
import { tried } from './build/asked'

/** What was brought in at once and can be taken back at once; `said` tells what became of it. */
export function useTakeBack(said: Ref<string>, done: () => unknown) {
  const undo = ref<number | null>(null)
  async function takeBack(): Promise<void> {
    const number = undo.value
    if (number === null) return
    await tried(said, async () => {
      const call = api.POST('/api/imports/{number}/undo', { params: { path: { number } } })
      const text = `${(await ask(call)).said}.`
      undo.value = null
      await done()
      said.value = text
    })
  }
  return { undo, takeBack }
}
