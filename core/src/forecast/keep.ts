/**
 * Gives what was made under a name before, or makes it. Callers decide what they hold, for how long and beside which weather; the
 * computation only says what is worth holding.
 */
export type Keep = <T>(what: string, make: () => T) => T

/** Holds nothing. */
export const makeAnew: Keep = (_, make) => make()
