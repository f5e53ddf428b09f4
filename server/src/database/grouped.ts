/** What has the same key, under it, in the order in which it comes. */
export function grouped<T, K>(all: readonly T[], keyOf: (one: T) => K): Map<K, T[]> {
  const groups = new Map<K, T[]>()
  for (const one of all) {
    const key = keyOf(one)
    const group = groups.get(key)
    if (group) group.push(one)
    else groups.set(key, [one])
  }
  return groups
}
