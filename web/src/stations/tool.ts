import { computed, type Ref, ref, watch } from 'vue'

import type { SetUp } from '../api/types'

const KEPT = 'proud-rake.tool.'

/** Which of the cards of one work is shown: the tool used last at that station where it reaches, else the
 * first that does; one that was chosen for this work is shown though it does not reach. */
export function usePickedTool(cards: Ref<SetUp[]>, station: Ref<string>, work: Ref<string>) {
  const last = ref(localStorage.getItem(KEPT + station.value) ?? '')
  const here = ref('')
  watch(station, (name) => (last.value = localStorage.getItem(KEPT + name) ?? ''))
  watch(work, () => (here.value = ''))
  const card = computed(() => {
    const by = (key: string) => cards.value.find((one) => one.by === key)
    const used = by(last.value)
    return (
      by(here.value) ??
      (used?.in_reach ? used : undefined) ??
      cards.value.find((one) => one.in_reach) ??
      used ??
      cards.value[0]
    )
  })
  function choose(key: string): void {
    here.value = last.value = key
    localStorage.setItem(KEPT + station.value, key)
  }
  return { card, choose }
}
