import type { Fault, ParsedInputOf, weather } from '@bocado/contract'
import { civilDate, dayNumber, seasonLater } from '@bocado/core'
import { sqlInstant, type Write } from '../database/index.js'
import { fieldProblem } from '../http/problems.js'
import type { Deps } from '../http/route.js'
import { decideFixes, listDoubted, type DoubtedReading } from './fixStore.js'
import { getSite } from '../sites/service.js'
import { stationPosition } from './place.js'
import { getStation } from './stations.js'
import { lockStation } from './store.js'

const instant = (minutes: number): string => new Date(minutes * 60_000).toISOString().replace('.000Z', 'Z')

const spanOf = (values: readonly (number | null)[]): { low: number; high: number } | null => {
  const known = values.filter((v) => v !== null)
  return known.length === 0 ? null : { low: Math.min(...known), high: Math.max(...known) }
}

/** Consecutive hours with the same reason and decision are one fault to judge. */
function runsOf(doubted: readonly DoubtedReading[]): DoubtedReading[][] {
  const runs: DoubtedReading[][] = []
  for (const one of doubted) {
    const run = runs.at(-1)
    const last = run?.at(-1)
    const follows =
      last &&
      last.variable === one.variable &&
      last.flag === one.flag &&
      last.decision === one.decision &&
      one.minutes - last.minutes === 60
    if (run && follows) run.push(one)
    else runs.push([one])
  }
  return runs
}

/** What is doubted of a station in a season, newest first. */
export async function seasonFaults(deps: Deps, siteId: string, stationId: string, season: string): Promise<Fault[]> {
  const station = await getStation(deps.database, siteId, stationId)
  // What is doubted is found when the history is made.
  await deps.history.daysOf(deps.database, station, stationPosition(station, await getSite(deps.database, deps.clock, siteId)))
  const standardMidnight = (day: number): string => sqlInstant(new Date(day * 86_400_000 - station.utcOffsetMinutes * 60_000))
  const start = dayNumber(season)
  const doubted = await listDoubted(deps.database, siteId, stationId, standardMidnight(start), standardMidnight(seasonLater(start, 1)))
  return runsOf(doubted)
    .map((run): Fault => {
      const first = run[0] as DoubtedReading
      return {
        variable: first.variable,
        flag: first.flag,
        from: instant(first.minutes),
        to: instant((run.at(-1) as DoubtedReading).minutes),
        hours: run.length,
        read: spanOf(run.map(({ reading }) => reading)),
        standsIn: spanOf(run.map(({ value }) => value)),
        methods: [...new Set(run.map(({ method }) => method))],
        decision: first.decision,
        decidedBy: first.decidedBy,
      }
    })
    .sort((a, b) => b.from.localeCompare(a.from))
}

/** Decides on runs of doubted hours; all of them, or none where one is not there. */
export async function decideFaults(
  w: Write,
  stationId: string,
  input: ParsedInputOf<typeof weather.decideFaults>,
): Promise<{ hours: number }> {
  await getStation(w.tx, w.siteId, stationId)
  await lockStation(w, stationId)
  let hours = 0
  for (const [i, { variable, from, to }] of input.faults.entries()) {
    const decided = await decideFixes(w, stationId, variable, sqlInstant(from), sqlInstant(to), input.decision)
    if (decided === 0)
      throw fieldProblem(
        `faults.${i}`,
        `nothing of ${variable} is doubted from ${civilDate(Date.parse(from) / 86_400_000)} on; fetch the list again`,
      )
    hours += decided
  }
  return { hours }
}
