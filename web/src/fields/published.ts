import FIELDS from '../api/fields.json'
import type { Row } from './rows'

/** What the core says of one field: its label, how it is given, the words of a choice, what lies within. */
interface Told {
  label?: string
  kind?: string
  titles?: Record<string, string>
  whole?: boolean
  of?: string
  by?: string
  variants?: Record<string, string>
  list?: boolean
  within?: Record<string, { label?: string; titles?: Record<string, string> }>
  least?: number
  above?: number
  most?: number
  starts?: unknown
}
/** The documents a form is made for. */
export type Root = keyof typeof FIELDS
const MODELS = FIELDS as unknown as Record<Root, Record<string, Record<string, Told>>>

/** The words of a choice, in the order they are offered. */
export type Words = { value: string; title: string }[]

/** The model of what stands at a field: the only one it can be, or the one its own kind names. */
function modelOf(told: Told, value: unknown): string {
  if (told.of) return told.of
  const kind = told.by ? (value as Record<string, unknown> | undefined)?.[told.by] : undefined
  return told.variants?.[String(kind)] ?? ''
}

/** What the core says of the field at a dotted path of a document; nothing where there is none such. */
export function toldOf(document: unknown, path: string, root: Root = 'Piece'): Told | undefined {
  let model: string = root
  let here: unknown = document
  let told: Told | undefined
  let before: Told | undefined
  let found: Told | undefined
  for (const step of path.split('.')) {
    here = (here as Record<string, unknown> | null | undefined)?.[step]
    if (/^\d+$/.test(step)) {
      if (!told) return undefined
      model = modelOf(told, here)
      continue
    }
    before = told
    told = MODELS[root][model]?.[step]
    if (!told) return undefined
    // Within some parts a field is called otherwise than it is by itself.
    found = { ...told, ...before?.within?.[step] }
    if (!told.list) model = modelOf(told, here)
  }
  return found
}

/** A field as a form shows it: what it is called and how it is given come from the core. */
export function published(document: unknown, base: string, at: string, root: Root = 'Piece'): Row {
  const told = toldOf(document, base ? `${base}.${at}` : at, root)
  if (!told?.label) throw new Error(`The core has no label for ${base}.${at}.`)
  const items = Object.entries(told.titles ?? {}).map(([value, title]) => ({
    value: told.whole ? Number(value) : value,
    title,
  }))
  const kind = told.kind === 'typed' ? undefined : (told.kind as Row['kind'])
  return { at, label: told.label, ...(kind ? { kind } : {}), ...(items.length ? { items } : {}) }
}

/** The words of a choice among models or values, by the model and field that hold it. */
export const wordsOf = (model: string, field: string, root: Root = 'Piece'): Words =>
  Object.entries(MODELS[root][model]?.[field]?.titles ?? {}).map(([value, title]) => ({
    value,
    title,
  }))

/** What a field is called, by the model it belongs to. */
export const labelOf = (model: string, field: string, root: Root = 'Piece'): string =>
  MODELS[root][model]?.[field]?.label ?? ''

/** A bare number as a form shows it: what it is called, the least (or what it must be above) and the most
 * it can be. */
export function numberOf(model: string, field: string, root: Root) {
  const told = MODELS[root][model]?.[field]
  const least = told?.least ?? told?.above
  if (least === undefined || told?.most === undefined)
    throw new Error(`The core has no limits for ${model}.${field}.`)
  return { label: told.label ?? '', least, most: told.most, above: told.above !== undefined }
}

/** The most letters of a text, the most there may be of many. */
export function mostOf(model: string, field: string, root: Root = 'Piece'): number {
  const most = MODELS[root][model]?.[field]?.most
  if (most === undefined) throw new Error(`The core has no limit for ${model}.${field}.`)
  return most
}

/** What can be put in whole, in the words of the core. */
export const wishes = (what: string): Words => wordsOf('Restate', what, 'Wish')

/** The names of a lean that may be typed, and which of its four each says. */
export const namesOfALean = (): { name: string; label: string; of: string }[] =>
  Object.entries(MODELS.Lean['Quick'] ?? {}).map(([name, told]) => ({
    name,
    label: told.label ?? '',
    of: told.of ?? '',
  }))

/** What a field is where nothing is said. */
export const startOf = <T>(model: string, field: string, root: Root): T =>
  MODELS[root][model]?.[field]?.starts as T
