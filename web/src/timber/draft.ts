import type { StockItem, StockOut } from '../api/types'
import { labelOf, startOf, type Words, wordsOf } from '../fields/published'

export interface At {
  x: number
  y: number
}
/** A figure as it was read back: sent as it was kept where nothing else was typed. */
export interface Was {
  text: string
  value: number
}
export interface FlawTyped {
  kind: string
  start: string
  end: string
  low: string
  high: string
  was?: Record<'start' | 'end' | 'low' | 'high', Was | undefined>
}
export interface SpotDrawn {
  id: string
  was?: Was
  kind: string
  points: At[]
  across: string
  area: boolean
}
export interface Under {
  width: number
  x: number
  y: number
  turn: number
}

/** A piece of wood as it is being typed and drawn. */
export interface Draft {
  kind: StockItem['kind']
  texts: Record<string, string>
  rings: string
  section: string
  planed: boolean
  live: boolean
  source: string
  flaws: FlawTyped[]
  outline: At[]
  spots: SpotDrawn[]
  photo: Under | null
  /** How thick a slab is at places. */
  thick: { at: At; thickness: string; was?: Was }[]
  /** The figures as they were read back, by field. */
  was: Record<string, Was>
  /** What is kept as it is: readings over time, thickness at places. */
  kept: Record<string, unknown>
}

const SHARED = ['name', 'species', 'moisture', 'cost', 'place', 'notes']
export const FIELDS: Record<StockItem['kind'], string[]> = {
  board: ['length', 'width', 'thickness'],
  slab: ['thickness', 'grain'],
  log: ['length', 'small_end', 'large_end', 'bark', 'pith', 'checks'],
  stick: ['length', 'thick_end', 'thin_end'],
}
/** The core's names of the models that wood is kept in. */
const MODEL: Record<StockItem['kind'], string> = {
  board: 'Board',
  slab: 'Slab',
  log: 'Log',
  stick: 'TurnedStick',
}
/** What a field of a piece of wood is called. */
export const called = (kind: StockItem['kind'], field: string): string =>
  labelOf(MODEL[kind], field, 'Pile')
/** The words of a choice about it. */
export const words = (kind: StockItem['kind'], field: string): Words =>
  wordsOf(MODEL[kind], field, 'Pile')
export function fresh(kind: StockItem['kind'], species = ''): Draft {
  return {
    kind,
    texts: { species },
    rings: '',
    section: startOf('TurnedStick', 'section', 'Pile'),
    planed: startOf('Board', 'planed', 'Pile'),
    live: startOf('Slab', 'live', 'Pile'),
    source: startOf('Board', 'source', 'Pile'),
    flaws: [],
    outline: structuredClone(startOf<At[]>('Slab', 'outline', 'Pile')),
    spots: [],
    photo: null,
    thick: [],
    was: {},
    kept: {},
  }
}

/** What is sent for a figure: the one that was kept, where it still reads the same. */
const figure = (typed: string, was: Was | undefined): string | number =>
  was && typed.trim() === was.text ? was.value : typed.trim()

const said = (value: unknown): string =>
  typeof value === 'number' || typeof value === 'string' ? String(value) : ''
const num = (value: unknown): number => Number(value ?? 0)

export function draftOf(stock: StockOut): Draft {
  const item = stock.item
  const made = fresh(item.kind, item.species)
  const all = item as unknown as Record<string, unknown>
  const was = (path: string): Was | undefined => {
    const read = stock.chosen[path]
    return read && { text: read.text, value: read.value }
  }
  for (const name of [...SHARED, ...FIELDS[item.kind]]) {
    const read = was(name)
    if (read) made.was[name] = read
    made.texts[name] = read?.text ?? said(all[name])
  }
  made.source = item.source ?? made.source
  made.kept = { seen: item.seen ?? [], own: item.own ?? null }
  if (item.own) {
    made.texts['gravity'] = said(item.own.gravity)
    made.texts['radial'] = said(item.own.radial)
    made.texts['tangential'] = said(item.own.tangential)
  }
  if (item.kind === 'board') {
    made.rings = item.rings ?? ''
    made.planed = item.planed ?? made.planed
    made.flaws = (item.flaws ?? []).map((f, k) => {
      // Without its unit: the columns are narrow, and what is typed there has none either.
      const [start, end, low, high] = ['start', 'end', 'low', 'high'].map((n) => {
        const read = was(`flaws.${k}.${n}`)
        return read && { ...read, text: read.text.replace(/ mm$/, '') }
      })
      const text = (one: Was | undefined): string => one?.text ?? ''
      return {
        kind: f.kind,
        start: text(start),
        end: text(end),
        low: text(low),
        high: text(high),
        was: { start, end, low, high },
      }
    })
  }
  if (item.kind === 'slab') {
    made.live = item.live ?? made.live
    made.outline = item.outline.map((p) => ({ x: num(p.x), y: num(p.y) }))
    made.spots = (item.spots ?? []).map((s, k) => ({
      id: s.id ?? '',
      was: was(`spots.${k}.across`),
      kind: s.kind,
      points: s.points.map((p) => ({ x: num(p.x), y: num(p.y) })),
      across: was(`spots.${k}.across`)?.text ?? said(s.across),
      area: s.area ?? false,
    }))
    const p = item.photo
    made.photo = p ? { width: num(p.width), x: num(p.x), y: num(p.y), turn: num(p.turn) } : null
    made.thick = (item.thick ?? []).map((one, k) => {
      const read = was(`thick.${k}.thickness`)
      const place = { x: num(one.at.x), y: num(one.at.y) }
      const typed = { at: place, thickness: read?.text ?? said(one.thickness) }
      return read ? { ...typed, was: read } : typed
    })
  }
  if (item.kind === 'stick') made.section = item.section ?? made.section
  return made
}

/** The document that is sent: what was left empty is left out. */
export function documentOf(draft: Draft): Record<string, unknown> {
  const made: Record<string, unknown> = { kind: draft.kind, source: draft.source }
  for (const name of [...SHARED, ...FIELDS[draft.kind]]) {
    const typed = (draft.texts[name] ?? '').trim()
    if (typed) made[name] = figure(typed, draft.was[name])
  }
  made['name'] = draft.texts['name'] ?? ''
  made['species'] = draft.texts['species'] ?? ''
  const { gravity, radial, tangential } = draft.texts
  if (gravity || radial || tangential)
    made['own'] = Object.fromEntries(
      Object.entries({ gravity, radial, tangential }).filter(([, value]) => value),
    )
  if (draft.kept['seen']) made['seen'] = draft.kept['seen']
  if (draft.kind === 'board') {
    made['rings'] = draft.rings
    made['planed'] = draft.planed
    made['flaws'] = draft.flaws
      .filter((f) => f.start || f.end)
      .map((f) => ({
        kind: f.kind,
        end: figure(f.end, f.was?.end),
        ...(f.start ? { start: figure(f.start, f.was?.start) } : {}),
        ...(f.low ? { low: figure(f.low, f.was?.low) } : {}),
        ...(f.high ? { high: figure(f.high, f.was?.high) } : {}),
      }))
  }
  if (draft.kind === 'slab') {
    made['live'] = draft.live
    made['outline'] = draft.outline
    made['spots'] = draft.spots.map(({ was, ...spot }) => ({
      ...spot,
      across: spot.across ? figure(spot.across, was) : undefined,
    }))
    made['photo'] = draft.photo
    made['thick'] = draft.thick.map((one) => ({
      at: one.at,
      thickness: figure(one.thickness, one.was),
    }))
  }
  if (draft.kind === 'stick') made['section'] = draft.section
  return made
}
