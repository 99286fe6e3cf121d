/** One run of a figure's text: plain, or a fraction to be set as one. */
export interface Run {
  plain?: string
  over?: [string, string]
}

/** Splits '16 1/2"' into plain text and fractions. */
export function runs(text: string): Run[] {
  const found: Run[] = []
  let last = 0
  for (const match of text.matchAll(/(\d+)\/(\d+)/g)) {
    const before = text.slice(last, match.index).trimEnd()
    if (before) found.push({ plain: before })
    found.push({ over: [match[1] ?? '', match[2] ?? ''] })
    last = match.index + match[0].length
  }
  if (last < text.length) found.push({ plain: text.slice(last) })
  return found
}

/** A figure with its unit close by: as one word, so that nothing comes between them. */
export const close = (text: string): string => text.replace(/(\d) mm/g, '$1\u202fmm')
