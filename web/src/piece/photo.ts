import { defineStore } from 'pinia'
import { computed, ref } from 'vue'

import { api, ask, Away, Refused } from '../api/client'
import type { Photo, PhotoOut } from '../api/types'
import type { Underlay } from '../drawing/geometry'
import { smaller } from './smaller'
import { usePiece } from './store'

/** The photograph a drawn outline is drawn over: sent, shown under the plan, taken away. */
export const usePhoto = defineStore('photo', () => {
  const store = usePiece()
  /** The photograph kept of the open piece; null where there is none. */
  const kept = ref<PhotoOut | null>(null)
  const of = ref('')
  const wrong = ref('')
  const outline = computed(() => {
    const top = store.piece?.top.outline
    return top?.kind === 'drawn' ? top : null
  })
  const laid = computed(() => outline.value?.photo ?? null)

  /** Find out what is kept of the open piece. */
  async function look(): Promise<void> {
    const id = store.id
    if (!id || of.value === id) return
    of.value = id
    kept.value = null
    wrong.value = ''
    try {
      const path = { id }
      const got = await ask(api.GET('/api/pieces/{id}/photo/about', { params: { path } }))
      if (store.id === id) kept.value = got
    } catch (error) {
      // Away: asked again when it is looked for again. Refused: there is none.
      if (error instanceof Away) of.value = ''
    }
  }

  const under = computed<Underlay | null>(() => {
    const [place, photo] = [laid.value, kept.value]
    if (!place || !photo || of.value !== store.id) return null
    const { width, x = 0, y = 0, turn = 0 } = place as Record<keyof Photo, number>
    const height = (width * photo.height) / photo.width
    const href = `/api/pieces/${store.id}/photo?${encodeURIComponent(photo.taken)}`
    return { href, x, y, width, height, turn }
  })

  /** Lay the kept photograph under the outline. */
  const lay = (): void => store.restate({ what: 'photo', to: 'laid' })

  /** Send a photograph and lay it under the outline. */
  async function choose(file: File): Promise<void> {
    const id = store.id
    wrong.value = ''
    const blob = await smaller(file)
    if (!blob) {
      wrong.value = 'That is no picture: choose a photograph (JPEG, PNG or WebP).'
      return
    }
    try {
      const got = await ask(
        api.PUT('/api/pieces/{id}/photo', {
          params: { path: { id } },
          body: blob as unknown as never,
          bodySerializer: (body: unknown) => body as Blob,
          headers: { 'Content-Type': 'image/jpeg' },
        }),
      )
      if (store.id !== id) return
      kept.value = got
      of.value = id
      if (!laid.value) lay()
    } catch (error) {
      const fault = error instanceof Refused ? error.problem.faults?.[0] : undefined
      wrong.value = fault?.do ?? 'The workshop does not answer: choose the photograph again.'
    }
  }

  /** Take it away: the place it was laid at goes, and can be undone; so the picture stays kept. */
  const drop = (): void => store.restate({ what: 'photo', to: 'none' })

  return { kept, laid, under, wrong, look, choose, lay, drop }
})
