import { type Ref, ref, shallowRef } from 'vue'

import { Away, Refused } from '../api/client'

const RETRY_MS = 2000

/** Something that is asked of the workshop and asked again while it is away; only the last answer counts. */
export function useAsked<T>(call: () => Promise<T>) {
  const got = shallowRef<T>()
  const said = ref('')
  let asked = 0
  async function look(): Promise<void> {
    const turn = (asked += 1)
    try {
      const answer = await call()
      if (turn !== asked) return
      got.value = answer
      said.value = ''
    } catch (error) {
      if (turn !== asked) return
      if (error instanceof Away) {
        said.value = 'The workshop does not answer. Trying again.'
        setTimeout(() => turn === asked && void look(), RETRY_MS)
      } else if (error instanceof Refused) said.value = error.problem.detail
      else throw error
    }
  }
  return { got, said, look }
}

/** Do something that may be refused or not be heard, and say so; whether it was done. */
export async function tried(
  said: Ref<string>,
  act: () => Promise<unknown>,
  away = 'The workshop does not answer: try it again.',
): Promise<boolean> {
  try {
    await act()
    return true
  } catch (error) {
    if (error instanceof Away) said.value = away
    else if (error instanceof Refused) said.value = error.problem.detail
    else throw error
    return false
  }
}
