import {
  calibrateFigure,
  calibrationSkill,
  type CalibratedFigure,
  type CalibrationSkill,
  type JudgedSeason,
} from '../phenology/calibration.js'
import { fitCatches, flightAt, type CatchFit, type CatchSeason } from '../phenology/catchCurve.js'
import { sustainedCatch } from '../phenology/biofix.js'
import { dayOfHeat } from '../phenology/eventDates.js'
import { resolveEvents, type EventModel, type OrganismModel, type ResolvedEvent } from '../phenology/model.js'
import { heatAtShare } from '../phenology/spread.js'
import { seasonLater } from '../time/civilDays.js'
import { seasonHeat } from '../weather/seasonHeat.js'
import { seasonWeather } from '../weather/seasonWeather.js'
import { BEGUN_SHARE } from './begun.js'
import { heatStart } from './heatStart.js'
import { dailyHeatFrom } from './placedModel.js'
import type { SeasonAtPlace } from './seasonAtPlace.js'

/** What was seen of an event in a season; days are day numbers. */
export interface DatedEvent {
  event: string
  /** First day of its season. */
  season: number
  /** The first that was seen, half of all, or a check of a trap. */
  kind: 'first' | 'half' | 'catch'
  seenOn: number
  /** The last look before, without it; null where nobody wrote it down. */
  lookedBefore: number | null
  /** Animals in the trap, for a check. */
  caught: number | null
}

/** Why a season of records says nothing: its weather is not known, its biofix is not, too few were caught, or seen before the biofix. */
export type LeftOut = 'weather' | 'biofix' | 'few-catches' | 'before-biofix'

/** What one season says of an event's figure. */
export interface FittedSeason extends JudgedSeason {
  season: number
  source: DatedEvent['kind']
  /** Day number of the event. */
  date: number
}

/** What records say of one event, season by season, and together. */
export interface EventCalibration {
  event: string
  prior: { heat: number; heatSe: number; spread: number | undefined }
  fitted: FittedSeason[]
  left: { season: number; reason: LeftOut }[]
  /** Undefined where no season says anything. */
  posterior: CalibratedFigure | undefined
  /** The flight that catches tell, where they are of individuals of this event itself. */
  flight: CatchFit | undefined
  /** How well the figure before, and the own one, would have told the seasons. */
  skill: { prior: CalibrationSkill; own: CalibrationSkill } | undefined
}

/** A record's share of the population. */
const SHARE = { first: BEGUN_SHARE, half: 0.5 } as const
/** Days between looks where nobody wrote down the last one without it (from practice). */
const USUAL_GAP_DAYS = 7
/** °C·d that no date is told better than (from practice). */
const SMALLEST_DATING = 1
/** Days after the last record that a season is looked at, so that a late prediction still has its date. */
const DAYS_AFTER = 60

/** A season as it was: heat from the biofix on, and how well the biofix is known. */
interface SeasonAsItWas {
  season: number
  /** °C·d through each day of the season. */
  cumulative: Float64Array
  /** Heat at which the biofix lies on that sum, and how far it may be off, in °C·d. */
  biofix: { heat: number; sd: number }
  heatOn: (day: number) => number
}

interface Making {
  model: OrganismModel
  records: readonly DatedEvent[]
  /** Day number of the biofix that was entered, by the first day of its season. */
  biofixes: ReadonlyMap<number, number>
  at: Pick<SeasonAtPlace, 'place' | 'hemisphere'>
  today: number
}

/**
 * What a place's records say of the events of a model: for each event of which there are any, the figure that every season gives, and
 * the figure that they give together with the one before.
 *
 * @param today day number up to which weather is known
 */
export function calibrationFromRecords(m: Making): EventCalibration[] {
  const seasons = new Map([...new Set(m.records.map(({ season }) => season))].map((season) => [season, seasonAsItWas(season, m)] as const))
  const resolved = resolveEvents(m.model)
  return m.model.generations.flatMap(({ events }) =>
    events.flatMap((event) => {
      const placed = resolved.find(({ id }) => id === event.id)
      if (!placed || !m.records.some((record) => record.event === event.id)) return []
      const anchorSe = resolved.find(({ id }) => id === event.countedFrom)?.heatSe ?? 0
      return [calibrateEvent(event, placed, anchorSe, seasons, m.records)]
    }),
  )
}

/** The heat of a season of records. A reason where it cannot be had. */
function seasonAsItWas(season: number, { model, records, biofixes, at, today }: Making): SeasonAsItWas | LeftOut {
  const { place, hemisphere } = at
  if (!place) return 'weather'
  const lastSeen = Math.max(...records.filter((record) => record.season === season).map(({ seenOn }) => seenOn))
  // Weather that is missing later in the year does not matter.
  const end = Math.min(seasonLater(season, 1), today, lastSeen + DAYS_AFTER)
  const weather = seasonWeather({ series: place.series, firstDay: season, today: end })
  const firstEvent = model.generations[0]?.events[0]?.id
  const caught = records.filter((record) => record.kind === 'catch' && record.season === season && record.event === firstEvent)
  const entered = biofixes.get(season) ?? null
  const trapped = entered === null && model.biofix?.kind === 'sustained-catch' ? byCatches(caught) : undefined
  const start = trapped
    ? { how: 'entered' as const, day: Math.round(trapped.day), expected: undefined, daySd: trapped.halfInterval / Math.sqrt(3) }
    : heatStart(model, entered, { firstDay: season, today: end, hemisphere, temperatures: place.temperatures })
  if (start.how === 'none' || start.how === 'chill-expected') return 'biofix'
  const heat = seasonHeat(weather, model.heat, start.day)
  if (heat.missingDays.some((day) => day < end)) return 'weather'
  const cumulative = heat.median.slice(0, end - season)
  const through = (i: number): number => (i < 0 ? 0 : (cumulative[Math.min(i, cumulative.length - 1)] ?? 0))
  const from = start.day - season
  const daily = from < 0 ? (through(from + 13) - through(from)) / 13 : dailyHeatFrom({ median: cumulative }, from)
  return {
    season,
    cumulative,
    biofix: start.expected
      ? { heat: start.expected.heat, sd: start.expected.heatSe }
      : { heat: 0, sd: (start.daySd ?? 0) * Math.max(0, daily) },
    heatOn: (day) => through(day - season),
  }
}

function byCatches(caught: readonly DatedEvent[]): ReturnType<typeof sustainedCatch> {
  const before = caught[0]?.lookedBefore
  if (before == null) return undefined
  return sustainedCatch(
    before,
    caught.map(({ seenOn, caught: count }) => ({ day: seenOn, count: count ?? 0 })),
  )
}

function calibrateEvent(
  event: EventModel,
  resolved: ResolvedEvent,
  anchorSe: number,
  seasons: ReadonlyMap<number, SeasonAsItWas | LeftOut>,
  records: readonly DatedEvent[],
): EventCalibration {
  const own = records.filter((record) => record.event === event.id)
  const left: EventCalibration['left'] = []
  const usable: SeasonAsItWas[] = []
  for (const season of new Set(own.map((record) => record.season))) {
    const was = seasons.get(season)
    if (typeof was === 'object') usable.push(was)
    else left.push({ season, reason: was ?? 'weather' })
  }
  const of = (season: number, kind: DatedEvent['kind']): DatedEvent[] =>
    own.filter((record) => record.season === season && record.kind === kind)
  const kind = event.distribution === 'weibull' ? 'lognormal' : event.distribution
  const trapped = usable.filter(({ season }) => of(season, 'catch').length > 0)
  const flight = fitCatches(
    trapped.map((was): CatchSeason => {
      const checks = of(was.season, 'catch')
      return {
        from: was.heatOn(checks[0]?.lookedBefore ?? -Infinity) - was.biofix.heat,
        checks: checks.map(({ seenOn, caught }) => ({ heat: was.heatOn(seenOn) - was.biofix.heat, count: caught ?? 0 })),
      }
    }),
    kind,
  )
  // A figure that counts from an earlier event moves with that event's median, which is itself not known better than this.
  const noise = (was: SeasonAsItWas, dating: number): number => Math.max(SMALLEST_DATING, Math.hypot(dating, was.biofix.sd, anchorSe))
  const fitted = usable.flatMap((was): FittedSeason[] => {
    const t = trapped.indexOf(was)
    const byTrap = t >= 0 ? flight?.seasons[t] : undefined
    if (flight && byTrap) {
      // Where the figure counts from the biofix itself the fitted flight gives it; otherwise it is moved as its median is.
      const heat = event.countedFrom
        ? event.heat + byTrap.median - resolved.spread.median
        : flightAt(event.atShare, kind, byTrap.median, flight.sd)
      return judged(was, heat, byTrap.median - heat + was.biofix.heat, noise(was, byTrap.se), 'catch')
    }
    const seen = of(was.season, 'first')[0] ?? of(was.season, 'half')[0]
    if (!seen) {
      left.push({ season: was.season, reason: 'few-catches' })
      return []
    }
    const on = was.heatOn(seen.seenOn)
    const before = was.heatOn(seen.lookedBefore ?? seen.seenOn - USUAL_GAP_DAYS)
    const oneDay = on - was.heatOn(seen.seenOn - 1)
    const expected = heatAtShare(SHARE[seen.kind as keyof typeof SHARE], resolved.spread)
    if (on - was.biofix.heat <= 0) {
      left.push({ season: was.season, reason: 'before-biofix' })
      return []
    }
    const at = (on + before) / 2 - was.biofix.heat
    const dating = Math.max(on - before, oneDay) / Math.sqrt(12)
    return judged(was, event.heat + at - expected, expected - event.heat + was.biofix.heat, noise(was, dating), seen.kind)
  })
  const prior = { mean: event.heat, sd: event.heatSe }
  const [byPrior, byOwn] = [false, true].map((leaveOneOut) => calibrationSkill(prior, fitted, leaveOneOut))
  return {
    event: event.id,
    prior: { heat: event.heat, heatSe: event.heatSe, spread: event.spread },
    fitted,
    left,
    posterior: fitted.length > 0 ? calibrateFigure(prior, fitted) : undefined,
    // A spread counted from an earlier event is what is left of the flight's beside that event's.
    flight: flight && event.distribution !== 'weibull' && !event.countedFrom ? flight : undefined,
    skill: fitted.length > 1 && byPrior && byOwn ? { prior: byPrior, own: byOwn } : undefined,
  }
}

function judged(was: SeasonAsItWas, heat: number, offset: number, datingSd: number, source: DatedEvent['kind']): FittedSeason[] {
  const day = dayOfHeat(was.cumulative, heat + offset)
  if (!Number.isFinite(day)) return []
  const date = was.season + Math.floor(day)
  return [{ heat, datingSd, day, cumulative: was.cumulative, offset, source, date, season: was.season }]
}
