import type { CalibratedEvent, Calibration, EventRecord, ModelFigure } from '@bocado/contract'
import {
  calibrateFigure,
  calibrationSkill,
  civilDate,
  dayNumber,
  dayOfHeat,
  fitCatches,
  flightAt,
  heatAtShare,
  resolveEvents,
  seasonHeat,
  seasonLater,
  seasonWeather,
  sustainedCatch,
  type CatchSeason,
  type EventModel,
  type Hemisphere,
  type JudgedSeason,
  type ResolvedEvent,
} from '@bocado/core'
import type { Write } from '../database/index.js'
import { HttpProblem } from '../http/problems.js'
import type { Deps } from '../http/route.js'
import { hemisphereOf } from '../sites/service.js'
import { weatherOfBlocks, type BlockWeather } from '../weather/blockWeather.js'
import { listEventRecords } from './eventRecords.js'
import { listOwnFigures, modelBeforeRecords, setOwnFigures, type PinnedModel, type StoredFigure } from './models.js'
import { watchInPlace } from './service.js'
import { startOf } from './start.js'
import { listBiofixes, organismOf } from './store.js'

/** A record's share of the population: the first that is seen is about 3 %. */
const SHARE = { first: 0.03, half: 0.5 } as const
/** Days between looks where nobody wrote down the last one without it. */
const USUAL_GAP = 7
const SMALLEST_DATING = 1
/** Days after the last record that a season is looked at, so that a late prediction still has its date. */
const DAYS_AFTER = 60

/** A season as it was: heat from the biofix on, and how well the biofix is known. */
interface SeasonAsItWas {
  season: string
  /** °C·d through each day of the season. */
  cumulative: Float64Array
  /** Heat at which the biofix lies on that sum, and how far it may be off, in °C·d. */
  biofix: { heat: number; sd: number }
  heatOn: (day: string) => number
}

type Left = CalibratedEvent['left'][number]['reason']
type Fitted = JudgedSeason & { season: string; source: EventRecord['kind']; date: string }

interface Making {
  model: PinnedModel
  records: readonly EventRecord[]
  biofixes: ReadonlyMap<string, string>
  block: BlockWeather
  hemisphere: Hemisphere
  today: number
}

/** The heat of a season of records. A reason where it cannot be had. */
function seasonAsItWas(season: string, m: Making): SeasonAsItWas | Left {
  const { place } = m.block
  if (!place) return 'weather'
  const firstDay = dayNumber(season)
  const lastSeen = Math.max(...m.records.filter((r) => r.season === season).map(({ seenOn }) => dayNumber(seenOn)))
  // Weather that is missing later in the year does not matter.
  const end = Math.min(seasonLater(firstDay, 1), m.today, lastSeen + DAYS_AFTER)
  const weather = seasonWeather({ series: place.series, firstDay, today: end })
  const caught = m.records.filter((r) => r.kind === 'catch' && r.season === season && r.event === m.model.generations[0]?.events[0]?.id)
  const entered = m.biofixes.get(season) ?? null
  const trapped = entered === null && m.model.biofix?.kind === 'sustained-catch' ? byCatches(caught) : undefined
  const start = trapped
    ? { day: Math.round(trapped.day), expected: undefined, daySd: trapped.halfInterval / Math.sqrt(3) }
    : startOf(m.model, entered, { ...m.block, weather }, end, m.hemisphere)
  if ('how' in start && (start.how === 'none' || start.how === 'chill-expected')) return 'biofix'
  const heat = seasonHeat(weather, m.model.heat, start.day)
  const through = end - firstDay
  if (heat.missingDays.some((day) => day < end)) return 'weather'
  const cumulative = heat.median.slice(0, through)
  const at = (i: number): number => (i < 0 ? 0 : (cumulative[Math.min(i, cumulative.length - 1)] ?? 0))
  const from = start.day - firstDay
  const daily = (at(from + 13) - at(from)) / 13
  return {
    season,
    cumulative,
    biofix: start.expected
      ? { heat: start.expected.heat, sd: start.expected.heatSe }
      : { heat: 0, sd: (start.daySd ?? 0) * Math.max(0, daily) },
    heatOn: (day) => at(dayNumber(day) - firstDay),
  }
}

function byCatches(caught: readonly EventRecord[]) {
  const first = caught[0]
  if (!first?.lookedBefore) return undefined
  return sustainedCatch(
    dayNumber(first.lookedBefore),
    caught.map(({ seenOn, caught: count }) => ({ day: dayNumber(seenOn), count: count ?? 0 })),
  )
}

/** What records say of one event, season by season, and together. */
function calibrateEvent(
  event: EventModel,
  resolved: ResolvedEvent,
  anchorSe: number,
  name: string,
  seasons: ReadonlyMap<string, SeasonAsItWas | Left>,
  m: Making,
): Omit<CalibratedEvent, 'accepted'> {
  const own = m.records.filter((r) => r.event === event.id)
  const left: CalibratedEvent['left'] = []
  const usable: SeasonAsItWas[] = []
  for (const season of new Set(own.map((r) => r.season))) {
    const was = seasons.get(season)
    if (typeof was === 'object') usable.push(was)
    else left.push({ season, reason: was ?? 'weather' })
  }
  const of = (season: string, kind: EventRecord['kind']): EventRecord[] => own.filter((r) => r.season === season && r.kind === kind)
  const kind = event.distribution === 'weibull' ? 'lognormal' : event.distribution
  const trapped = usable.filter(({ season }) => of(season, 'catch').length > 0)
  const flight = fitCatches(
    trapped.map((was): CatchSeason => {
      const checks = of(was.season, 'catch')
      return {
        from: was.heatOn(checks[0]?.lookedBefore ?? '') - was.biofix.heat,
        checks: checks.map(({ seenOn, caught }) => ({ heat: was.heatOn(seenOn) - was.biofix.heat, count: caught ?? 0 })),
      }
    }),
    kind,
  )
  // A figure that counts from an earlier event moves with that event's median, which is itself not known better than this.
  const noise = (was: SeasonAsItWas, dating: number): number => Math.max(SMALLEST_DATING, Math.hypot(dating, was.biofix.sd, anchorSe))
  const fitted = usable.flatMap((was): Fitted[] => {
    const t = trapped.indexOf(was)
    const byTrap = t >= 0 ? flight?.seasons[t] : undefined
    if (flight && byTrap) {
      // Where the figure counts from the biofix itself the fitted flight gives it; otherwise it is moved as its median is.
      const heat = event.countedFrom
        ? event.heat + byTrap.median - resolved.spread.median
        : flightAt(event.atShare, kind, byTrap.median, flight.sd)
      const offset = byTrap.median - heat + was.biofix.heat
      return judged(was, heat, offset, noise(was, byTrap.se), 'catch')
    }
    const seen = of(was.season, 'first')[0] ?? of(was.season, 'half')[0]
    if (!seen) {
      left.push({ season: was.season, reason: 'few-catches' })
      return []
    }
    const on = was.heatOn(seen.seenOn)
    const before = was.heatOn(seen.lookedBefore ?? civilDate(dayNumber(seen.seenOn) - USUAL_GAP))
    const oneDay = on - was.heatOn(civilDate(dayNumber(seen.seenOn) - 1))
    const expected = heatAtShare(SHARE[seen.kind as keyof typeof SHARE], resolved.spread)
    const at = (on + before) / 2 - was.biofix.heat
    if (on - was.biofix.heat <= 0) {
      left.push({ season: was.season, reason: 'before-biofix' })
      return []
    }
    const offset = expected - event.heat + was.biofix.heat
    return judged(was, event.heat + at - expected, offset, noise(was, Math.max(on - before, oneDay) / Math.sqrt(12)), seen.kind)
  })
  const prior = { mean: event.heat, sd: event.heatSe }
  const result = fitted.length > 0 ? calibrateFigure(prior, fitted) : undefined
  const [byPrior, byOwn] = [false, true].map((leaveOneOut) => calibrationSkill(prior, fitted, leaveOneOut))
  // A spread counted from an earlier event is what is left of the flight's beside that event's.
  const individual = flight && event.distribution !== 'weibull' && !event.countedFrom ? flight : undefined
  return {
    event: event.id,
    name,
    prior: { heat: event.heat, heatSe: event.heatSe },
    seasons: fitted.map(({ season, source, date, heat, datingSd }) => ({ season, source, day: date, heat, datingSd })),
    left,
    posterior: result ? { heat: result.figure.mean, heatSe: result.heatSe, yearSd: result.yearSd, weight: result.weight } : null,
    flight: individual
      ? {
          prior: event.spread ?? 0,
          sd: individual.sd,
          low: individual.low,
          high: individual.high,
          catches: individual.catches,
          intervals: individual.intervals,
          dispersion: individual.dispersion,
        }
      : null,
    skill: fitted.length > 1 && byPrior && byOwn ? { prior: byPrior, own: byOwn } : null,
  }
}

function judged(was: SeasonAsItWas, heat: number, offset: number, datingSd: number, source: EventRecord['kind']): Fitted[] {
  const day = dayOfHeat(was.cumulative, heat + offset)
  if (!Number.isFinite(day)) return []
  const date = civilDate(dayNumber(was.season) + Math.floor(day))
  return [{ heat, datingSd, day, cumulative: was.cumulative, offset, source, date, season: was.season }]
}

/** What an accepted calibration puts in place of the numbers of an event, as they are kept. */
function numbersOf({ event, posterior, flight }: Omit<CalibratedEvent, 'accepted'>): { path: string; value: number }[] {
  if (!posterior) return []
  const kept = (value: number): number => Math.round(value * 10) / 10
  return [
    { path: `${event}.heat`, value: kept(posterior.heat) },
    { path: `${event}.heatSe`, value: kept(posterior.heatSe) },
    ...(flight ? [{ path: `${event}.spread`, value: kept(flight.sd) }] : []),
  ]
}

async function calibrated(deps: Deps, siteId: string, watchId: string) {
  const { watch, site, block } = await watchInPlace(deps, siteId, watchId)
  const organism = organismOf(watch)
  const [records, figures, biofixes] = await Promise.all([
    listEventRecords(deps.db, siteId, watch),
    listOwnFigures(deps.db, siteId),
    listBiofixes(deps.db, siteId, watch),
  ])
  const m: Making = {
    model: modelBeforeRecords(organism, figures, watch.blockId).pinned,
    records,
    biofixes,
    block: await (await weatherOfBlocks(deps, site, watch.season))(block),
    hemisphere: hemisphereOf(site),
    today: dayNumber(site.today),
  }
  const seasons = new Map([...new Set(records.map((r) => r.season))].map((season) => [season, seasonAsItWas(season, m)] as const))
  const resolved = resolveEvents(m.model)
  const named = organism.generations.flatMap(({ events }) => events)
  const events = m.model.generations.flatMap((generation) =>
    generation.events.flatMap((event) => {
      if (!records.some((r) => r.event === event.id)) return []
      const placed = resolved.find(({ id }) => id === event.id) as ResolvedEvent
      const anchorSe = resolved.find(({ id }) => id === event.countedFrom)?.heatSe ?? 0
      return [calibrateEvent(event, placed, anchorSe, named.find(({ id }) => id === event.id)?.name ?? event.id, seasons, m)]
    }),
  )
  return { watch, records, events, figures }
}

const isAccepted = (
  event: Omit<CalibratedEvent, 'accepted'>,
  blockId: string,
  organismId: string,
  figures: readonly StoredFigure[],
): boolean => {
  const numbers = numbersOf(event)
  const fitted = figures.filter((f) => f.fitted && f.blockId === blockId && f.organismId === organismId)
  return numbers.length > 0 && numbers.every(({ path, value }) => fitted.some((f) => f.path === path && f.value === value))
}

/** What a block's own records say of the numbers of a watch's model: the number before, each season, and both together. */
export async function calibrationOf(deps: Deps, siteId: string, watchId: string): Promise<Calibration> {
  const { watch, records, events, figures } = await calibrated(deps, siteId, watchId)
  return { records, events: events.map((event) => ({ ...event, accepted: isAccepted(event, watch.blockId, watch.organismId, figures) })) }
}

/** Makes what the records say of an event the block's own numbers. Watches take them when somebody takes the newer model. */
export async function acceptCalibration(w: Write, deps: Deps, watchId: string, eventId: string): Promise<ModelFigure[]> {
  const { watch, events } = await calibrated(deps, w.siteId, watchId)
  const event = events.find((e) => e.event === eventId)
  if (!event?.posterior) throw new HttpProblem(422, 'There is no record of this event yet that its numbers could be fitted to.')
  const seasons = event.seasons.map(({ season }) => season.slice(0, 4)).join(', ')
  return setOwnFigures(
    w,
    watch.organismId,
    { figures: numbersOf(event), blockId: watch.blockId, reason: `fitted to the records of ${seasons}` },
    { prior: event.prior, seasons: event.seasons, posterior: event.posterior, flight: event.flight },
  )
}
