import { LRUCache } from 'lru-cache'

/** A rough size of a value in bytes: what its numbers, texts and arrays of numbers take. What is shared counts each time. */
export function roughBytes(value: unknown, depth = 0): number {
  if (typeof value === 'number') return 8
  if (typeof value === 'string') return 2 * value.length + 16
  if (typeof value !== 'object' || value === null) return 8
  if (ArrayBuffer.isView(value)) return value.byteLength + 64
  if (depth > 8) return 64
  if (Array.isArray(value)) {
    const [first] = value as unknown[]
    if (typeof first === 'number' || value.length === 0) return 16 + 8 * value.length
    return (value as unknown[]).reduce<number>((sum, one) => sum + roughBytes(one, depth + 1), 16)
  }
  if (value instanceof Map || value instanceof Set) return 64 + 48 * value.size
  let sum = 32
  for (const one of Object.values(value)) sum += 16 + roughBytes(one, depth + 1)
  return sum
}

const SETTLING = 1024

/**
 * Results worth keeping while what they rest on stays the same: their key names all of it, with versions. It holds no more than its
 * bytes; the least recently used go first. Several processes may each keep their own.
 */
export class Memo {
  private readonly kept: LRUCache<string, { made: unknown }>

  constructor(mostBytes: number) {
    this.kept = new LRUCache({ maxSize: mostBytes })
  }

  get<T>(key: string, make: () => T): T {
    const held = this.kept.get(key)
    if (held) return held.made as T
    const made = make()
    const entry = { made: made as unknown }
    if (made instanceof Promise) {
      this.kept.set(key, entry, { size: SETTLING })
      // What is larger than everything that may be kept is not kept; what failed is tried again by the next one who asks.
      made.then(
        (value) => {
          if (this.kept.peek(key) === entry) this.kept.set(key, entry, { size: 64 + roughBytes(value) })
        },
        () => {
          if (this.kept.peek(key) === entry) this.kept.delete(key)
        },
      )
    } else this.kept.set(key, entry, { size: 64 + roughBytes(made) })
    return made
  }

  /** Bytes that are held now, roughly. */
  get bytes(): number {
    return this.kept.calculatedSize
  }
}
