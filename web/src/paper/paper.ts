import { computed, onBeforeUnmount, reactive, ref } from 'vue'

import { api, ask } from '../api/client'
import type { PaperOut, TableOut } from '../api/types'
import { tried, useAsked } from '../build/asked'
import { useTakeBack } from '../takeBack'
import { soMany } from '../words'

/** The tools that were used last in this browser, wherever: a sheet shows the same ones. */
export function toolsUsed(kept: Storage): string {
  const found = Object.keys(kept)
    .filter((key) => key.startsWith('proud-rake.tool.'))
    .map((key) => kept.getItem(key) ?? '')
  return [...new Set(found.filter(Boolean))].join(',')
}

/** What is asked with every sheet, as the end of an address; nothing for what is left out. */
export function wishes(said: Record<string, string | number>): string {
  const query = new URLSearchParams()
  for (const [name, value] of Object.entries(said)) if (value) query.set(name, String(value))
  const text = query.toString()
  return text ? `?${text}` : ''
}

/** All that goes out of a piece on paper and as files. */
export function usePaper(id: () => string, copy: () => number) {
  const left = reactive(new Set<string>())
  const { got, said, look } = useAsked(async (): Promise<PaperOut & { counted: string }> => {
    const counted = wished()
    const query = { copy_number: copy(), sorts: counted, tools: toolsUsed(localStorage) }
    const call = api.GET('/api/pieces/{id}/out', { params: { path: { id: id() }, query } })
    return { ...(await ask<PaperOut>(call)), counted }
  })
  /** The sorts of patterns that are wished, empty for all. */
  function wished(): string {
    const all: string[] = Object.keys(got.value?.sorts ?? {})
    return left.size ? all.filter((sort) => !left.has(sort)).join(',') : ''
  }
  const sorts = computed(wished)
  /** The sheets of the sorts that are ticked; nothing while they are counted. */
  const sheets = computed(() =>
    got.value?.counted === sorts.value ? got.value.pattern_pages : undefined,
  )
  const none = computed(() => {
    const all = Object.keys(got.value?.sorts ?? {})
    return all.length > 0 && all.every((sort) => left.has(sort))
  })
  /** Take a sort of patterns along, or leave it. */
  function take(sort: string, wished: boolean): void {
    if (wished) left.delete(sort)
    else left.add(sort)
    void look()
  }
  /** The address of one sheet or file. */
  function address(name: string, more: Record<string, string> = {}): string {
    const day = new Date().toLocaleDateString([], {
      year: 'numeric',
      month: 'long',
      day: 'numeric',
    })
    const told = { copy_number: copy(), day, tools: toolsUsed(localStorage), ...more }
    return `/api/pieces/${id()}/out/${name}${wishes(told)}`
  }
  return { got, said, look, left, sorts, sheets, none, take, address }
}

/** A table of readings: looked through, taken in, taken back. */
export function useTable(id: () => string, bare: () => 'inch' | 'metric', done: () => void) {
  const said = ref('')
  const looked = ref<{ found: TableOut; text: string; copy: number } | null>(null)
  const { undo, takeBack } = useTakeBack(said, done)
  const busy = ref(false)
  let gone = false
  onBeforeUnmount(() => (gone = true))

  async function send(text: string, copy: number, sure: boolean): Promise<void> {
    busy.value = true
    said.value = ''
    await tried(said, async () => {
      const body = { text, sure, bare: bare(), copy_number: copy }
      const call = api.POST('/api/pieces/{id}/readings_table', {
        params: { path: { id: id() } },
        body,
      })
      const found = await ask<TableOut>(call)
      if (gone) return
      looked.value = sure ? null : { found, text, copy }
      if (!sure) return
      undo.value = found.undo
      said.value = `${soMany(found.taken, 'reading was', 'readings were')} taken in.`
      done()
    })
    busy.value = false
  }
  return { said, looked, undo, busy, send, takeBack }
}
