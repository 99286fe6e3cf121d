/**
 * Changes of one document, one after the other: each is made to what the one before left, so that two quick
 * ones both stay. One that fails holds up none.
 */
export function inTurn() {
  let last: Promise<unknown> = Promise.resolve()
  let waiting = 0

  function next<Done>(act: () => Promise<Done>): Promise<Done> {
    // The first goes at once: whoever leaves right after it has done it.
    const begun = waiting ? last.then(act) : act()
    waiting += 1
    const mine = begun.finally(() => (waiting -= 1))
    last = mine.catch(() => undefined)
    return mine
  }
  /** When all that was asked for by now is done, or has failed. */
  const settled = async (): Promise<void> => void (await last)
  return { next, waiting: () => waiting, settled }
}
