import { provide, ref } from 'vue'

import { Refused } from '../api/client'
import type { Fault } from '../api/types'
import { HOST, type Host } from '../fields/host'
import { withValue, without } from '../paths'
import { useShop } from './store'

/** The shop, as forms see it: each change goes to the workshop at once. Provided to the forms below. */
export function useShopHost() {
  const store = useShop()
  const faults = ref<Record<string, Fault>>({})
  /** The workshop did not hear the last change. */
  const away = ref(false)
  async function set(path: string, value: unknown): Promise<void> {
    try {
      await store.change((now) => withValue(now, path, value))
      faults.value = without(faults.value, path)
      away.value = false
    } catch (error) {
      if (error instanceof Refused) {
        const found = error.problem.faults?.[0]
        if (found) faults.value = { ...faults.value, [path]: found }
      } else away.value = true
    }
  }
  const host: Host = {
    root: 'Shop',
    document: () => store.shop,
    text: (path) => store.chosen[path]?.text ?? '',
    fault: (path) => faults.value[path],
    set,
    stamp: () => store.chosen,
  }
  provide(HOST, host)
  return { faults, away, set }
}
