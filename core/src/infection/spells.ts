/** Hours of a place; hour i begins `firstHour + i` hours after 1970-01-01 in standard time. NaN: not known. */
export interface InfectionHours {
  firstHour: number
  /** °C. */
  temperature: Float64Array
  /** 1 wet, 0 dry, NaN not known. */
  wet: Float64Array
  /** Relative humidity in %. */
  humidity: Float64Array
  /** mm in the hour. */
  rain: Float64Array
}

/** A time in which leaves were wet, dry breaks that do not end it included. */
export interface WetSpell {
  /** First wet hour and the hour after the last, on the axis of the hours. */
  from: number
  until: number
  wetHours: number
  /** Hours within it of which nothing is known: they count as neither wet nor dry. */
  unknownHours: number
  /** °C over the wet hours. */
  meanTemperature: number
}

/** An infection that the weather allowed. */
export interface Infection {
  /** Hour at which enough wetness had come. */
  at: number
  spell: WetSpell
  /** Wet hours over those needed: 1 is just enough. */
  severity: number
  /** Whether it rests on known hours alone; otherwise it is possible. */
  certain: boolean
}

/** A run of hours of which nothing is known for so long says nothing any more. */
const LONGEST_UNKNOWN_HOURS = 24

/** What a spell has to bring beside wetness; without it any wet hour begins one, and counts. */
export interface SpellRule {
  /** Whether a spell can begin in an hour, by its index; undefined where that is not known. */
  begins(i: number): boolean | undefined
  /** Index of the first hour that counts of a spell that begins at an index. */
  countsFrom(i: number): number
}

const ANY_WETNESS: SpellRule = { begins: () => true, countsFrom: (i) => i }

interface OpenSpell extends WetSpell {
  sum: number
  countsFrom: number
  /** Whether what begins it is known to have come. */
  sure: boolean
}

/**
 * Wet spells with the infection each allowed, if any. Wetness adds up over dry breaks of at most `longestBreak` hours; a night's
 * spell is one, never split at midnight. As the spell goes on its mean temperature says how many wet hours are needed.
 *
 * @param needed wet hours needed at a temperature in °C, Infinity where none suffice
 * @param from first hour of `hours` that is looked at, as an index
 */
export function infectionsBy(
  hours: InfectionHours,
  needed: (tempC: number) => number,
  longestBreak: number,
  from = 0,
  rule: SpellRule = ANY_WETNESS,
): { spells: WetSpell[]; infections: Infection[] } {
  const { firstHour, temperature, wet } = hours
  const spells: WetSpell[] = []
  const infections: Infection[] = []
  let spell: OpenSpell | undefined
  let infection: Infection | undefined
  let dry = 0
  let unknown = 0
  const end = (): void => {
    if (!spell) return
    const { sum: _sum, countsFrom: _from, sure: _sure, ...closed } = spell
    const hoursNeeded = needed(closed.meanTemperature)
    spells.push(closed)
    if (infection) infections.push({ ...infection, spell: closed, severity: Math.max(1, closed.wetHours / hoursNeeded) })
    else if (closed.unknownHours > 0 && closed.wetHours > 0 && closed.wetHours + closed.unknownHours >= hoursNeeded)
      infections.push({ at: closed.until - 1, spell: closed, severity: 1, certain: false })
    spell = undefined
    infection = undefined
  }
  const opened = (i: number): OpenSpell | undefined => {
    const begins = rule.begins(i)
    if (begins === false) return undefined
    const base = { from: firstHour + i, until: 0, wetHours: 0, unknownHours: 0, meanTemperature: 0 }
    return { ...base, sum: 0, countsFrom: rule.countsFrom(i), sure: begins === true }
  }
  for (let i = Math.max(0, from); i < wet.length; i++) {
    const isWet = wet[i] as number
    const t = temperature[i] as number
    if (isWet === 1 && !Number.isNaN(t)) {
      spell ??= opened(i)
      if (!spell) continue
      if (!spell.sure && rule.begins(i)) spell.sure = true
      if (unknown > 0 && i >= spell.countsFrom) spell.unknownHours += unknown
      spell.until = firstHour + i + 1
      dry = 0
      unknown = 0
      if (i < spell.countsFrom) continue
      spell.wetHours++
      spell.sum += t
      spell.meanTemperature = spell.sum / spell.wetHours
      if (!infection && spell.wetHours >= needed(spell.meanTemperature))
        infection = { at: firstHour + i, spell, severity: 1, certain: spell.sure && spell.unknownHours === 0 }
    } else if (isWet === 0) {
      dry++
      if (dry > longestBreak) {
        end()
        unknown = 0
      }
    } else if (spell) {
      unknown++
      if (unknown > LONGEST_UNKNOWN_HOURS) {
        end()
        unknown = 0
      }
    }
  }
  end()
  return { spells, infections }
}

/** Wet hours for infection by mean temperature in °C, for apple scab (MacHardy & Gadoury 1989). */
const SCAB: readonly (readonly [number, number])[] = [
  [1, 41],
  [2, 35],
  [3, 30],
  [4, 28],
  [5, 21],
  [6, 18],
  [7, 15],
  [8, 13],
  [9, 12],
  [10, 11],
  [11, 9],
  [12, 8],
  [13, 8],
  [14, 7],
  [15, 7],
  [16, 6],
  [24, 6],
  [25, 8],
  [26, 11],
]

/** Dry hours that end a wet spell of apple scab; shorter breaks do not count as wet. */
export const SCAB_LONGEST_BREAK_HOURS = 8

/**
 * Wet hours that apple scab needs at a mean temperature in °C, between the table's rows by a straight line; none below 1 or above 26.
 *
 * @example scabWetHours(12) // 8
 */
export function scabWetHours(tempC: number): number {
  const above = SCAB.findIndex(([t]) => t >= tempC)
  const [first] = SCAB
  if (above < 0 || !first || tempC < first[0]) return Infinity
  const high = SCAB[above] as readonly [number, number]
  const low = SCAB[Math.max(0, above - 1)] as readonly [number, number]
  return high[0] === low[0] ? high[1] : low[1] + ((high[1] - low[1]) * (tempC - low[0])) / (high[0] - low[0])
}
