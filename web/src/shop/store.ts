import { defineStore } from 'pinia'
import { computed, ref } from 'vue'

import { api, ask } from '../api/client'
import type { Quantity, Shop, ShopOut } from '../api/types'
import { inTurn } from '../inTurn'

/** The shop's tools and units. */
export const useShop = defineStore('shop', () => {
  const shop = ref<Shop | null>(null)
  const chosen = ref<Record<string, Quantity>>({})
  /** What whoever is here has not been asked yet. */
  const unasked = ref<string[]>([])
  const system = computed(() => shop.value?.rounding?.system ?? 'metric')

  async function load(): Promise<void> {
    adopt(await ask(api.GET('/api/shop')))
  }

  function adopt(answer: ShopOut): void {
    shop.value = answer.shop
    chosen.value = answer.chosen
    unasked.value = answer.unasked
  }

  const turns = inTurn()

  /** Change the shop's document. Throws Refused with the faults. */
  const change = (edit: (now: Shop) => Shop): Promise<void> => turns.next(() => send(edit))

  async function send(edit: (now: Shop) => Shop): Promise<void> {
    if (!shop.value) return
    const changed = edit(shop.value) as unknown as Record<string, unknown>
    const body = { shop: changed, bare: system.value }
    adopt(await ask(api.PUT('/api/shop', { body })))
  }

  async function flipUnits(): Promise<void> {
    await change((now) => ({
      ...now,
      rounding: { ...now.rounding, system: now.rounding?.system === 'inch' ? 'metric' : 'inch' },
    }))
  }

  return { shop, chosen, unasked, system, load, change, flipUnits }
})
