/** A catch with the trap that caught it. */
export interface TrapCatch {
  event: string
  season: number
  /** null where nobody said in which. */
  trap: string | null
  inDisruption: boolean
  caught: number
}

/**
 * The catches that tell a flight: where mating is disrupted none do, since a trap that males do not find says nothing of them; of several traps
 * in one place it is the one which caught most in a season, whose checks follow each other as the fit needs them.
 *
 * @returns the catches of that trap for each event and season, in their order
 */
export function tellingCatches<T extends TrapCatch>(catches: readonly T[]): T[] {
  const open = catches.filter(({ inDisruption }) => !inDisruption)
  const flightOf = ({ event, season }: T): string => `${season} ${event}`
  const totals = new Map<string, Map<string | null, number>>()
  for (const one of open) {
    const traps = totals.get(flightOf(one)) ?? new Map<string | null, number>()
    traps.set(one.trap, (traps.get(one.trap) ?? 0) + one.caught)
    totals.set(flightOf(one), traps)
  }
  const best = new Map([...totals].map(([flight, traps]) => [flight, [...traps].reduce((a, b) => (b[1] > a[1] ? b : a))[0]]))
  return open.filter((one) => best.get(flightOf(one)) === one.trap)
}

/** A check of one trap. */
export interface TrapCheck {
  /** Day number. */
  day: number
  /** Day number of the check before, or of the day on which the trap was hung. */
  since: number
  caught: number
}

/**
 * Catch per trap and day of a check.
 *
 * @throws RangeError where the check does not lie after the one before
 * @example catchPerDay({ day: 127, since: 120, caught: 14 }) // 2
 */
export function catchPerDay({ day, since, caught }: TrapCheck): number {
  if (day <= since) throw new RangeError(`day must lie after since, got ${day} and ${since}`)
  return caught / (day - since)
}
