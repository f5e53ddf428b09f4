const ONE = new Float64Array(1)

/** A running sum over numbers, by which two series that hold the same are known as the same. */
export class ContentSum {
  private a = 0x811c9dc5
  private b = 0x9e3779b9

  numbers(values: Float64Array): this {
    const words = new Uint32Array(values.buffer, values.byteOffset, values.length * 2)
    let { a, b } = this
    for (const word of words) {
      a = Math.imul(a ^ word, 0x01000193)
      b = Math.imul(b ^ (word >>> 3) ^ (word << 7), 0x85ebca6b) ^ (b >>> 13)
    }
    this.a = a
    this.b = b
    return this
  }

  number(value: number): this {
    ONE[0] = value
    return this.numbers(ONE)
  }

  get text(): string {
    return `${(this.a >>> 0).toString(36)}.${(this.b >>> 0).toString(36)}`
  }
}
