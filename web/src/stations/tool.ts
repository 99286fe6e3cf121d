import { computed, type Ref, ref, watch } from 'vue'

import type { Work } from '../api/types'
import { keepTool } from '../piece/looking'
import { usePiece } from '../piece/store'

/** Which of the cards of one work is shown: the first to be looked at, or the one whose tool was chosen for
 * this work. It is fetched where only the list of it has come. */
export function usePickedTool(cards: Ref<Work[]>, station: Ref<string>, work: Ref<string>) {
  const store = usePiece()
  const here = ref('')
  watch(work, () => (here.value = ''))
  const picked = computed(() => {
    const mine = cards.value.filter((one) => one.work === work.value)
    return mine.find((one) => one.by === here.value) ?? mine.find((one) => one.first) ?? mine[0]
  })
  const id = computed(() => picked.value?.id ?? '')
  watch(
    [id, () => store.plan],
    () => {
      if (id.value && store.turned === store.station) store.opens({ card: id.value })
    },
    { immediate: true },
  )
  const card = computed(() => store.plan?.setups.find((one) => one.id === id.value))
  function choose(by: string): void {
    here.value = by
    keepTool(station.value, by)
  }
  return { picked, card, choose }
}
