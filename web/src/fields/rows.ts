/** One field of a table of fields: where it is, what it is called, how it is given. */
export interface Row {
  /** Its place, dotted, below the table's own base. */
  at: string
  /** Name of the field. */
  label: string
  /** A typed length or angle where nothing is said. */
  kind?: 'choice' | 'count' | 'flag' | 'text' | 'words'
  /** The words to choose from. */
  items?: { value: unknown; title: string }[]
}

/** A typed length or angle. */
export const typed = (at: string, label: string): Row => ({ at, label })
/** One of a few words. */
export const choice = (at: string, label: string, items: [unknown, string][]): Row => ({
  at,
  label,
  kind: 'choice',
  items: items.map(([value, title]) => ({ value, title })),
})
