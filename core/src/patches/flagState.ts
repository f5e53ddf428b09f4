/** What was seen where a flag stands. */
export const flagSights = ['standing', 'regrowing', 'none', 'gone'] as const
export type FlagSight = (typeof flagSights)[number]

/** One look at a flag. */
export interface FlagVisit {
  /** Day number. */
  day: number
  sight: FlagSight
  /** Something was done against it on that visit. */
  isTreated: boolean
  /** Whose eyes they were. */
  by: string
}

/** How it stands with a flag: after the last look, and by what was seen before it. */
export type FlagState = 'found' | 'treated' | 'regrowing' | 'none-standing' | 'gone' | 'back'

const isUp = ({ sight }: Pick<FlagVisit, 'sight'>): boolean => sight === 'standing' || sight === 'regrowing'

/**
 * The state of a flag. "None standing" is not "gone": that is said by a person, once what lies in the soil has died (`bankAlive`).
 *
 * @param visits in their order, at least one
 * @throws RangeError without a visit
 * @example
 * flagState([{ day: 10, sight: 'standing', isTreated: true, by: 'a' }, { day: 40, sight: 'none', isTreated: false, by: 'a' }])
 * // 'none-standing'
 */
export function flagState(visits: readonly FlagVisit[]): FlagState {
  const last = visits.at(-1)
  if (!last) throw new RangeError('visits must hold at least one')
  if (last.sight === 'gone') return 'gone'
  if (last.sight === 'none') return 'none-standing'
  if (last.isTreated) return 'treated'
  if (last.sight === 'regrowing') return 'regrowing'
  const before = visits.slice(0, -1)
  // What was down for a visit and stands again came back; what was worked at and stands again regrew.
  const down = before.findLastIndex((visit) => !isUp(visit))
  const treated = before.findLastIndex(({ isTreated }) => isTreated)
  if (down === -1 && treated === -1) return 'found'
  return down > treated ? 'back' : 'regrowing'
}

/** Looks by the same eyes within so many days tell no more than one. */
export const SAME_EYES_DAYS = 14

/**
 * How often in a row nothing was found: looks of one person within a fortnight count once, since they overlook the same plants.
 *
 * @param visits in their order
 * @returns 0 where it stands
 */
export function cleanLooks(visits: readonly FlagVisit[]): number {
  const since = visits.slice(visits.findLastIndex(isUp) + 1)
  const counted = new Map<string, number>()
  let looks = 0
  for (const { by, day } of since) {
    const before = counted.get(by)
    if (before !== undefined && day - before < SAME_EYES_DAYS) continue
    counted.set(by, day)
    looks++
  }
  return looks
}

/** How long what lies in the soil lives, in years. */
export interface BankYears {
  shortest: number
  longest: number
}

/**
 * Until when what lies in the soil may still be alive, as day numbers: counted from the day on which a plant was last seen up, since each may
 * have fed the bank. null where nobody ever saw one, or the years are not known.
 */
export function bankAlive(visits: readonly FlagVisit[], years: BankYears | null): { from: number; until: number } | null {
  const last = visits.findLast(isUp)
  if (!last || !years) return null
  const after = (n: number): number => last.day + Math.round(n * DAYS_PER_YEAR)
  return { from: after(years.shortest), until: after(years.longest) }
}
const DAYS_PER_YEAR = 365.25
