import { defineStore } from 'pinia'
import { computed, ref } from 'vue'

import { api, ask } from '../api/client'
import type { Quantity, Shop } from '../api/types'

/** The shop's tools and units. */
export const useShop = defineStore('shop', () => {
  const shop = ref<Shop | null>(null)
  const chosen = ref<Record<string, Quantity>>({})
  const system = computed(() => shop.value?.rounding?.system ?? 'metric')

  async function load(): Promise<void> {
    const answer = await ask(api.GET('/api/shop'))
    shop.value = answer.shop
    chosen.value = answer.chosen
  }

  /** Change one place of the shop's document; throws Refused with the faults. */
  async function change(changed: Shop): Promise<void> {
    const body = { shop: changed as unknown as Record<string, unknown>, bare: system.value }
    const answer = await ask(api.PUT('/api/shop', { body }))
    shop.value = answer.shop
    chosen.value = answer.chosen
  }

  async function flipUnits(): Promise<void> {
    if (!shop.value) return
    const rounding = { ...shop.value.rounding }
    rounding.system = system.value === 'inch' ? 'metric' : 'inch'
    await change({ ...shop.value, rounding })
  }

  return { shop, chosen, system, load, change, flipUnits }
})
