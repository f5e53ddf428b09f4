import type { CalibratedEvent, Calibration, calibration, ModelFigure, ParsedInputOf } from '@bocado/contract'
import {
  calibrationFromRecords,
  civilDate,
  dayNumber,
  sustainedCatch,
  tellingCatches,
  type CatchFit,
  type DatedEvent,
  type EventCalibration,
} from '@bocado/core'
import { datedEvents, type Organism } from '@bocado/library'
import type { Write } from '../database/index.js'
import { HttpProblem } from '../http/problems.js'
import type { Deps } from '../http/route.js'
import { weatherOfBlocks } from '../weather/groundWeather.js'
import { clocksOf, listClocks, shownClocks, takeClock, typeClock } from './clocks.js'
import { listEventRecords } from './eventRecords.js'
import { listOwnFigures, modelBeforeRecords, setOwnFigures, type StoredFigure } from './models.js'
import { watchInPlace } from './service.js'
import { listBiofixes, organismOf } from './store.js'

/** What records say of one event, as it is shown. */
type Shown = Omit<CalibratedEvent, 'accepted'>

const shown = (one: EventCalibration, name: string): Shown => ({
  event: one.event,
  name,
  prior: { heat: one.prior.heat, heatSe: one.prior.heatSe },
  seasons: one.fitted.map(({ season, source, date, heat, datingSd }) => ({
    season: civilDate(season),
    source,
    day: civilDate(date),
    heat,
    datingSd,
  })),
  left: one.left.map(({ season, reason }) => ({ season: civilDate(season), reason })),
  posterior: one.posterior
    ? { heat: one.posterior.figure.mean, heatSe: one.posterior.heatSe, yearSd: one.posterior.yearSd, weight: one.posterior.weight }
    : null,
  flight: one.flight ? shownFlight(one.flight, one.prior.spread ?? 0) : null,
  skill: one.skill ?? null,
})

const shownFlight = ({ sd, low, high, catches, intervals, dispersion }: CatchFit, prior: number): NonNullable<Shown['flight']> => ({
  prior,
  sd,
  low,
  high,
  catches,
  intervals,
  dispersion,
})

/** What an accepted calibration puts in place of the numbers of an event, as they are kept. */
function numbersOf({ event, posterior, flight }: Shown): { path: string; value: number }[] {
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
  const [records, figures, biofixes, clocks] = await Promise.all([
    listEventRecords(deps.db, siteId, watch),
    listOwnFigures(deps.db, siteId),
    listBiofixes(deps.db, siteId, watch),
    listClocks(deps.db, siteId),
  ])
  const named = datedEvents(organism)
  const dated = records.map(({ event, kind, season, seenOn, lookedBefore, caught, trap }) => ({
    event,
    kind,
    season: dayNumber(season),
    seenOn: dayNumber(seenOn),
    lookedBefore: lookedBefore === null ? null : dayNumber(lookedBefore),
    caught,
    trap: trap?.id ?? null,
    inDisruption: trap?.inDisruption ?? false,
  }))
  const telling = new Set<unknown>(
    tellingCatches(dated.flatMap((one) => (one.kind === 'catch' ? [{ ...one, caught: one.caught ?? 0, of: one }] : []))).map(
      ({ of }) => of,
    ),
  )
  const at = await (await weatherOfBlocks(deps, site, watch.season))(block)
  const today = dayNumber(site.today)
  const taken = clocksOf(clocks, watch)
  const events = calibrationFromRecords({
    model: modelBeforeRecords(organism, figures, watch.blockId).pinned,
    records: dated.filter((one) => one.kind !== 'catch' || telling.has(one)),
    biofixes: new Map([...biofixes].map(([season, biofix]) => [dayNumber(season), dayNumber(biofix)])),
    at,
    today,
  }).map((one) => shown(one, named.find(({ id }) => id === one.event)?.name ?? one.event))
  return { watch, organism, dated, records, events, figures, taken, clocks: shownClocks(organism, dated, taken, at, today) }
}

const isAccepted = (event: Shown, blockId: string, organismId: string, figures: readonly StoredFigure[]): boolean => {
  const numbers = numbersOf(event)
  const fitted = figures.filter((f) => f.fitted && f.blockId === blockId && f.organismId === organismId)
  return numbers.length > 0 && numbers.every(({ path, value }) => fitted.some((f) => f.path === path && f.value === value))
}

/** The biofix that a season's catches show: those of the event from which its heat counts. */
function caughtBiofix(
  organism: Organism,
  dated: readonly (DatedEvent & { trap: string | null; inDisruption: boolean })[],
  season: number,
): Calibration['caughtBiofix'] {
  const { biofix, generations } = organism
  if (biofix.kind !== 'sustained-catch') return null
  const event = generations[0]?.events[0]?.id
  const caught = dated
    .filter((record) => record.kind === 'catch' && !record.inDisruption && record.season === season && record.event === event)
    .sort((a, b) => a.seenOn - b.seenOn)
  // The first that caught check after check, whichever of them it was.
  const [found] = [...new Set(caught.map(({ trap }) => trap))]
    .flatMap((trap) => {
      const checks = caught.filter((one) => one.trap === trap)
      const hungOn = checks[0]?.lookedBefore
      if (hungOn == null) return []
      return (
        sustainedCatch(
          hungOn,
          checks.map(({ seenOn, caught: count }) => ({ day: seenOn, count: count ?? 0 })),
          biofix.checks,
        ) ?? []
      )
    })
    .sort((a, b) => a.day - b.day)
  return found ? { day: civilDate(Math.round(found.day)), halfInterval: found.halfInterval, checks: found.checks.map(civilDate) } : null
}

/** What a block's own records say of the numbers of a watch's model: the number before, each season, and both together. */
export async function calibrationOf(deps: Deps, siteId: string, watchId: string): Promise<Calibration> {
  const { watch, organism, dated, records, events, figures, clocks, taken } = await calibrated(deps, siteId, watchId)
  return {
    records,
    typed: taken.flatMap(({ id, event, lower, heat, typed: own, rowVersion }) =>
      own === null
        ? []
        : [{ id, event, name: datedEvents(organism).find((e) => e.id === event)?.name ?? event, lower, heat, ...own, rowVersion }],
    ),
    caughtBiofix: caughtBiofix(organism, dated, dayNumber(watch.season)),
    clocks: clocks.shown,
    events: events.map((event) => ({ ...event, accepted: isAccepted(event, watch.blockId, watch.organismId, figures) })),
  }
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

/** Lets the block of a watch go by the clock that its records make of an event. */
export async function typeOwnClock(
  w: Write,
  deps: Deps,
  watchId: string,
  input: ParsedInputOf<typeof calibration.typeClock>,
): Promise<{ id: string; rowVersion: number }> {
  const { watch, organism, taken } = await calibrated(deps, w.siteId, watchId)
  return typeClock(w, watch, organism, taken, input)
}

export async function acceptClock(w: Write, deps: Deps, watchId: string, event: string): Promise<{ id: string; rowVersion: number }> {
  const { watch, clocks, taken } = await calibrated(deps, w.siteId, watchId)
  return takeClock(w, watch, clocks.made, taken, event)
}
