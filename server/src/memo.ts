/**
 * Results worth keeping while what they rest on stays the same: their key names all of it, with versions. The least recently used
 * go first. Several processes may each keep their own.
 */
export class Memo {
  private readonly kept = new Map<string, unknown>()
  private readonly regions = new Map<string, Memo>()

  constructor(private readonly limit = 400) {}

  /** A part with a limit of its own, for what is large. */
  region(name: string, limit: number): Memo {
    const known = this.regions.get(name)
    if (known) return known
    const region = new Memo(limit)
    this.regions.set(name, region)
    return region
  }

  get<T>(key: string, make: () => T): T {
    if (this.kept.has(key)) {
      const held = this.kept.get(key) as T
      this.kept.delete(key)
      this.kept.set(key, held)
      return held
    }
    const made = make()
    this.kept.set(key, made)
    // What failed is tried again by the next one who asks.
    if (made instanceof Promise) made.catch(() => this.kept.delete(key))
    for (const oldest of this.kept.keys()) {
      if (this.kept.size <= this.limit) break
      this.kept.delete(oldest)
    }
    return made
  }
}
