/**
 * Argument checks shared by the public functions. Each throws a `RangeError` that names the argument as the caller
 * wrote it and shows the offending value, so that a wrong reading can be traced to its row.
 */

export function requireFinite(name: string, value: number): void {
  if (typeof value !== 'number' || !Number.isFinite(value)) throw new RangeError(`${name} must be a finite number, got ${String(value)}`)
}

export function requireAtLeast(name: string, value: number, least: number): void {
  requireFinite(name, value)
  if (value < least) throw new RangeError(`${name} must be at least ${least}, got ${value}`)
}

export function requirePositive(name: string, value: number): void {
  requireFinite(name, value)
  if (value <= 0) throw new RangeError(`${name} must be above 0, got ${value}`)
}

export function requireWithin(name: string, value: number, least: number, most: number): void {
  requireFinite(name, value)
  if (value < least || value > most) throw new RangeError(`${name} must be from ${least} to ${most}, got ${value}`)
}

/** Checks that `low` lies strictly below `high`; both names appear in the message. */
export function requireOrder(lowName: string, low: number, highName: string, high: number): void {
  requireFinite(lowName, low)
  requireFinite(highName, high)
  if (low >= high) throw new RangeError(`${lowName} must be below ${highName}, got ${low} and ${high}`)
}
