/** A copy of a record without one of its keys. */
export function without<T>(record: Record<string, T>, key: string): Record<string, T> {
  return Object.fromEntries(Object.entries(record).filter(([name]) => name !== key))
}

/** A copy of `root` with the value at a dotted path put in its place. */
export function withValue<T>(root: T, path: string, value: unknown): T {
  const [head, ...rest] = path.split('.')
  if (head === undefined || head === '') return value as T
  const copy = (Array.isArray(root) ? [...(root as unknown[])] : { ...root }) as Record<
    string,
    unknown
  >
  copy[head] = rest.length ? withValue(copy[head], rest.join('.'), value) : value
  return copy as T
}

/** The value at a dotted path, or nothing where the path leads nowhere. */
export function valueAt(root: unknown, path: string): unknown {
  let here = root
  for (const step of path.split('.')) {
    if (here === null || typeof here !== 'object') return undefined
    here = (here as Record<string, unknown>)[step]
  }
  return here
}
