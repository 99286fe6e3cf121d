/** A value that a field shows, one step on: what the arrows and the wheel do. */

const FINE: Record<string, number> = { mm: 1, cm: 0.1, in: 1 / 16, '"': 1 / 16, '°': 0.5 }
const COARSE: Record<string, number> = { mm: 10, cm: 1, in: 1, '"': 1, '°': 5 }

/** The figure and its unit; nothing where it is no plain figure with one. */
function read(text: string): { value: number; unit: string } | null {
  const found = /^\s*(-?)(\d+(?:\.\d+)?)?(?:[\s-]*(\d+)\/(\d+))?\s*(mm|cm|in|"|°)\s*$/.exec(
    text.replace('−', '-'),
  )
  if (!found) return null
  const [, minus, whole, over, under, unit = ''] = found
  if (whole === undefined && over === undefined) return null
  const size = Number(whole ?? 0) + (over ? Number(over) / Number(under) : 0)
  return Number.isFinite(size) ? { value: minus ? -size : size, unit } : null
}

/** The text one step up (1) or down (-1) from `text`, to be sent as typed; nothing where there is none. */
export function stepped(text: string, way: 1 | -1, coarse: boolean): string | null {
  const at = read(text)
  const size = at && (coarse ? COARSE : FINE)[at.unit]
  if (!at || !size) return null
  // On the marks of its own step: 451.3 goes to 452, not to 452.3.
  const marks = at.value / size
  const next = way > 0 ? Math.floor(marks + 1 + 1e-6) : Math.ceil(marks - 1 - 1e-6)
  const value = Math.round(next * size * 1e6) / 1e6
  return `${value} ${at.unit}`
}
