import type { Fault } from './api/types'

/** A fault that is said by the page itself: whole sentences, at a field. */
export function faultSaid(field: string, said: string): Fault {
  return { field, got: '', allowed: '', do: said, what: '', said }
}

/** A fault with the thing it is about, for a place that does not show it. */
export function inWhole(fault: Fault): string {
  const what = fault.what || fault.field.replace('document.', '')
  return what ? `${what[0]?.toUpperCase()}${what.slice(1)}: ${fault.said}` : fault.said
}
