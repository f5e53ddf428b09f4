import { createHash } from 'node:crypto'
import type { Band, Derived, Site, Treatment, WatchForecast } from '@bocado/contract'
import { dayNumber, depositLeft, heatAxis, seasonLater } from '@bocado/core'
import { datedEvents, type Organism } from '@bocado/library'
import { inputsVersion } from '../database/index.js'
import { writtenOnce, type Deps } from '../http/route.js'
import { routePlants } from '../library/route.js'
import { decisionOn, decisionsOf } from '../scouting/decisions.js'
import { listRounds } from '../scouting/service.js'
import { withThresholdsOn } from '../scouting/thresholds.js'
import { getSite, requireSeason } from '../sites/service.js'
import { listProducts, listTreatments } from '../treatments/store.js'
import { weatherOfBlocks } from '../weather/groundWeather.js'
import { stateOfWork } from '../worker/queue.js'
import { daysOfStations } from '../worker/stationDays.js'
import { forecastBlooms } from './blooms.js'
import { keptForecasts, loadForecast, loadPicture, siteDerived, type KeptForecast, type SeasonPicture } from './derived.js'
import { listSightings } from './eventRecords.js'
import { makeableForecasts } from './forecasts.js'
import { movedSince, windowsLastWeek } from './issued.js'
import { hashOf, listOwnFigures, resolvedModel } from './models.js'
import { entryKey, listWatches, organismOf, presentedWatch, type StoredWatch } from './store.js'

/** A watch with the forecast that is shown of it. */
interface ShownForecast extends KeptForecast {
  watch: StoredWatch
  keyHash: string
}

/**
 * The forecasts of a season as they are kept; those that are not are made now, for this answer alone.
 */
async function forecastsShown(deps: Deps, site: Site, season: string): Promise<ShownForecast[]> {
  const { db, memo } = deps
  const [watches, kept] = await Promise.all([
    listWatches(db, site.id, season),
    // Only of the season at hand are forecasts kept up to date.
    season === site.season.start ? keptForecasts(db, site.id, season) : new Map<string, string>(),
  ])
  const missing = new Set(watches.flatMap(({ id }) => (kept.has(id) ? [] : [id])))
  const made = missing.size > 0 ? await makeableForecasts(deps, site, season, missing) : []
  const shown = await Promise.all(
    watches.map(async (watch): Promise<ShownForecast[]> => {
      const keyHash = kept.get(watch.id)
      if (keyHash !== undefined)
        return [{ watch, keyHash, ...(await memo.get(`kept ${watch.id} ${keyHash}`, () => loadForecast(db, watch.id))) }]
      const one = made.find((m) => m.watch.id === watch.id)
      return one ? [{ watch, keyHash: one.keyHash, ...one.make() }] : []
    }),
  )
  return shown.flat()
}

/** The heat axis and the blooms of a season, computed. */
export async function makePicture(deps: Deps, site: Site, season: string): Promise<{ keyHash: string; make: () => SeasonPicture }> {
  const main = await (await weatherOfBlocks(deps, site, season))(null)
  const today = dayNumber(site.today)
  const make = (): SeasonPicture => ({
    heatAxis: heatAxis(main.weather)?.map((at) => Math.round(at * 1e6) / 1e6) ?? null,
    blooms: forecastBlooms(main, today, deps.memo),
  })
  const key = `picture ${main.key} ${today}`
  return { keyHash: hashOf(key), make: () => deps.memo.get(key, make) }
}

/** Whether what is derived of a site follows from everything that is known. */
export async function derivedState({ db, clock }: Deps, siteId: string): Promise<Derived> {
  const site = await getSite(db, clock, siteId)
  const upTo = await siteDerived(db, siteId)
  const days = await daysOfStations(db, [siteId], await clock.now(db))
  const isOfToday = upTo?.today === site.today && upTo.stationDays === days.get(siteId)
  if (upTo && isOfToday && upTo.inputsVersion >= inputsVersion(site.versions)) return { state: 'fresh' }
  return { state: (await stateOfWork(db, 'derive', siteId)) === 'dead' ? 'failed' : 'recomputing' }
}

/** Every watch of a season with its forecast, what was planned, done and counted. */
export async function getBand(deps: Deps, siteId: string, season: string): Promise<Band> {
  const { db, memo } = deps
  const site = await getSite(db, deps.clock, siteId)
  requireSeason(site, season)
  const start = dayNumber(season)
  const days = seasonLater(start, 1) - start
  const [shown, upTo, rounds, decisions, treatments, products, own, route, sightings, lastWeek] = await Promise.all([
    forecastsShown(deps, site, season),
    siteDerived(db, siteId),
    listRounds(db, siteId, season),
    decisionsOf(db, siteId),
    listTreatments(db, siteId, season),
    listProducts(db, siteId),
    listOwnFigures(db, siteId),
    routePlants(db, siteId),
    listSightings(db, siteId),
    windowsLastWeek(db, siteId, site.today),
  ])
  const pictured = upTo?.season === season
  const picture = pictured
    ? { keyHash: upTo.keyHash, make: () => memo.get(`picture ${siteId} ${upTo.keyHash}`, () => loadPicture(db, siteId)) }
    : await makePicture(deps, site, season)
  const today = dayNumber(site.today)
  const watches = await withThresholdsOn(
    deps,
    siteId,
    season,
    shown.map(({ watch }) => presentedWatch(watch)),
    site.today,
  )
  const forecasts = shown.map(({ watch, forecast, rain }, i): Band['watches'][number] => ({
    ...forecast,
    watch: watches[i] ?? presentedWatch(watch),
    offer: offerTo(watch, organismOf(watch), own, memo, siteId),
    treatments: treatments
      .filter(({ watchId }) => watchId === watch.id)
      .map((treatment) => ({ ...treatment, depositLeft: leftOf(treatment, rain, start) })),
    rounds: rounds.filter(({ watchId }) => watchId === watch.id),
    decision: decisionOn(
      rounds.filter(({ watchId }) => watchId === watch.id),
      decisions,
    ),
    seen: seenOf(watch, sightings),
    moved: movedSince(forecast, lastWeek.get(watch.id)),
  }))
  // Everything that the answer shows, with versions: as long as none changes it is the same answer.
  const rest = createHash('sha256')
    .update(
      JSON.stringify([
        shown.map(({ keyHash, watch }) => [keyHash, watch.rowVersion]),
        picture.keyHash,
        forecasts.map(({ offer }) => offer),
        treatments,
        rounds,
        forecasts.map(({ seen, moved, decision, watch }) => [seen, moved, decision, watch.threshold]),
        products.map(({ id, rowVersion }) => [id, rowVersion]),
        route,
        site.today,
      ]),
    )
    .digest('base64url')
  const { heatAxis: axis, blooms } = await picture.make()
  const make = (): Band => ({
    season: { start: season, days, todayIndex: Math.min(Math.max(today - start, 0), days) },
    heatAxis: axis,
    blooms: onRoute(blooms, route),
    watches: forecasts,
  })
  return memo.get(`band ${siteId} ${season} ${rest}`, () => writtenOnce(make()))
}

/** What rain since has left of the deposit of a treatment; null where nothing was left to wash off, or rain is not known. */
function leftOf({ done }: Treatment, rain: readonly (number | null)[], season: number): number | null {
  if (!done?.label || done.label.residualDays === 0 || rain.length === 0) return null
  const left = depositLeft(rain.slice(Math.max(0, dayNumber(done.day) - season)))
  return left === null ? null : Math.round(left * 100) / 100
}

/** What somebody saw of a watch's organism in its block this season. */
function seenOf(watch: StoredWatch, sightings: Awaited<ReturnType<typeof listSightings>>): WatchForecast['seen'] {
  const names = datedEvents(organismOf(watch))
  return sightings
    .filter((s) => s.season === watch.season && s.blockId === watch.blockId && s.organismId === watch.organismId)
    .flatMap(({ event, kind, seenOn }) =>
      kind === 'catch' ? [] : [{ event, name: names.find(({ id }) => id === event)?.name ?? event, kind, day: seenOn }],
    )
    .sort((a, b) => a.day.localeCompare(b.day))
}

/** Blooms of the plants on the site's route; of all that the library knows, as long as none is on it. */
const onRoute = (blooms: Band['blooms'], route: readonly { plantId: string }[]): Band['blooms'] =>
  route.length === 0 ? blooms : blooms.filter(({ plant }) => route.some(({ plantId }) => plantId === plant))

/** The model that library and site have now, where it is not the one that a watch is pinned to. */
function offerTo(
  watch: StoredWatch,
  organism: Organism,
  own: Awaited<ReturnType<typeof listOwnFigures>>,
  memo: Deps['memo'],
  siteId: string,
): WatchForecast['offer'] {
  const versions = own
    .filter(({ organismId, blockId }) => organismId === organism.id && (blockId === null || blockId === watch.blockId))
    .map(({ id, rowVersion }) => `${id}@${rowVersion}`)
  const now = memo.get(`model ${siteId} ${entryKey(watch)} ${organism.version} ${versions.join()} ${watch.blockId}`, () =>
    resolvedModel(organism, own, watch.blockId),
  )
  return now.hash === watch.modelHash ? null : { model: now.name, ownFigures: now.pinned.own?.length ?? 0 }
}
