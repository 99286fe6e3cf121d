import type { Quantity } from '../../api/types'

/** Less than this cannot be seen or told, degrees. */
const LEAST = 0.005

function one(of: Quantity, to: string, back: string): string {
  if (Math.abs(of.value) < LEAST) return ''
  return `${of.text.replace('-', '')} too far to the ${of.value > 0 ? to : back}`
}

/** Which way a top leans more than it should, in words; both figures count towards right and back. */
export function leans(right: Quantity, back: Quantity): string {
  const said = [one(right, 'right', 'left'), one(back, 'back', 'front')].filter(Boolean)
  return said.join(', ') || 'nowhere it should not'
}
