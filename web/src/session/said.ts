import { Refused } from '../api/client'

/** What a refusal means, for a page of plain fields. */
export function saidOf(error: unknown): string {
  if (!(error instanceof Refused)) return 'The workshop does not answer. Try again.'
  const fault = error.problem.faults?.[0]
  return fault ? fault.said : error.problem.detail
}
