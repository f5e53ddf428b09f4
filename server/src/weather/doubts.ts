import type { Doubt, ParsedInputOf, weather } from '@bocado/contract'
import { civilDate, dayNumber, seasonLater, isoInstant, MS_PER_MINUTE, standardDay } from '@bocado/core'
import { sqlInstant, type Write } from '../database/index.js'
import { fieldProblem } from '../http/problems.js'
import type { Deps } from '../http/route.js'
import { decideDays, runsOfDays } from './doubtedDays.js'
import { doubtedBetween, type DoubtedReading } from './doubted.js'
import { decideFixes, fixKey, listDeciders } from './fixStore.js'
import { getSite, requireSeason } from '../sites/service.js'
import { stationPosition } from './place.js'
import { getStation } from './stations.js'
import { lockStation } from './store.js'
import { keepCheck } from './quality.js'

const HOURS_PER_DAY = 24

const instant = (minutes: number): string => isoInstant(minutes * MS_PER_MINUTE)

const spanOf = (values: readonly (number | null)[]): { low: number; high: number } | null => {
  const known = values.filter((v) => v !== null)
  return known.length === 0 ? null : { low: Math.min(...known), high: Math.max(...known) }
}

/** Consecutive hours with the same reason and decision are one doubt to judge. */
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
export async function seasonDoubts(deps: Deps, siteId: string, stationId: string, season: string): Promise<Doubt[]> {
  const station = await getStation(deps.db, siteId, stationId)
  const site = await getSite(deps.db, deps.clock, siteId)
  requireSeason(site, season)
  const days = await deps.history.daysOf(deps.db, station, stationPosition(station, site))
  const deciders = await listDeciders(deps.db, stationId)
  const start = dayNumber(season)
  const doubted = doubtedBetween(days, station.utcOffsetMinutes, start * 24, seasonLater(start, 1) * 24)
  const until = civilDate(seasonLater(start, 1))
  const ofDays = runsOfDays(
    days.doubtedDays.filter(({ day }) => day >= season && day < until),
    station.utcOffsetMinutes,
  )
  const ofHours = runsOf(doubted).map((run): Doubt => {
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
      decidedBy: deciders.get(fixKey(first)) ?? null,
    }
  })
  return [...ofHours, ...ofDays].sort((a, b) => b.from.localeCompare(a.from))
}

/** Decides on runs of doubted hours; all of them, or none where one is not there. */
export async function decideDoubts(
  w: Write,
  deps: Deps,
  stationId: string,
  input: ParsedInputOf<typeof weather.decideDoubts>,
): Promise<{ hours: number }> {
  await lockStation(w, stationId)
  const station = await getStation(w.tx, w.siteId, stationId)
  // What somebody decides on was found by a check that may not be kept yet.
  if (station.checkedVersion !== station.historyVersion) await keepCheck(w.tx, station, await deps.history.check(w.tx, station))
  const site = await getSite(w.tx, deps.clock, w.siteId)
  const { doubtedDays } = await deps.history.daysOf(w.tx, station, stationPosition(station, site))
  const dayOf = (instantText: string): string => civilDate(standardDay(Date.parse(instantText), station.utcOffsetMinutes))
  let hours = 0
  for (const [i, { variable, from, to }] of input.doubts.entries()) {
    const decided = await decideFixes(w, stationId, variable, sqlInstant(from), sqlInstant(to), input.decision)
    const days = variable === 'temperature' ? doubtedDays.filter(({ day }) => day >= dayOf(from) && day <= dayOf(to)) : []
    if (days.length > 0) {
      await decideDays(
        w,
        stationId,
        days.map(({ day }) => day),
        input.decision,
      )
      hours += days.length * HOURS_PER_DAY
    } else if (decided === 0)
      throw fieldProblem(`doubts.${i}`, `nothing of ${variable} is doubted from ${from.slice(0, 10)} on; fetch the list again`)
    hours += decided
  }
  return { hours }
}
