import { createHash } from 'node:crypto'
import type { Band, Block, Moves, ParsedInputOf, ResponseOf, Site, Treatment, Watch, WatchForecast, watches } from '@bocado/contract'
import {
  civilDate,
  dayNumber,
  heatAxis,
  knownPastYears,
  LEAD_DAYS,
  residueLeft,
  sameDayInYear,
  seasonHeat,
  seasonLater,
  seasonWeather,
} from '@bocado/core'
import type { Organism } from '@bocado/library'
import { listBlocks } from '../blocks/store.js'
import { listWetEvents } from '../blocks/wetEvents.js'
import { insertRow, liveRow, restoreRow, updateRow, type Queryable, type Write } from '../database/index.js'
import { HttpProblem, fieldProblem } from '../http/problems.js'
import { writtenOnce, type Deps } from '../http/route.js'
import { organismAt } from '../library/catalogue.js'
import { routePlants } from '../library/route.js'
import { listRounds } from '../scouting/service.js'
import { getSite, requireSeason } from '../sites/service.js'
import { listProducts, listTreatments } from '../treatments/store.js'
import { weatherOfBlocks, type BlockWeather } from '../weather/blockWeather.js'
import { bloomsByStation, type StationBloom } from '../bloom/evidence.js'
import { forecastBlooms } from './blooms.js'
import { forecastWatch, placedAt, type StationPush } from './forecast.js'
import { movesOf } from './issued.js'
import { figuresOf, listOwnFigures, resolvedModel, type ResolvedModel } from './models.js'
import { entryKey, findWatch, listWatches, organismOf, presentedWatch, type StoredWatch } from './store.js'

export async function getWatch(db: Queryable, siteId: string, watchId: string): Promise<StoredWatch> {
  const watch = await findWatch(db, siteId, watchId)
  if (!watch) throw new HttpProblem(404, 'There is no such watch at this site.')
  return watch
}

function requireBiofix(site: Site, season: string, biofix: string | null): void {
  if (biofix === null) return
  const start = dayNumber(season)
  const earliest = civilDate(start - LEAD_DAYS)
  const end = civilDate(seasonLater(start, 1) - 1)
  if (biofix < earliest || biofix > end)
    throw fieldProblem('biofix', `must lie in the season or in the ${LEAD_DAYS} days before it, ${earliest} to ${end}`)
  if (biofix > site.today)
    throw fieldProblem('biofix', `lies in the future; enter it when it has happened, at the latest today, ${site.today}`)
}

export async function createWatch(w: Write, deps: Deps, input: ParsedInputOf<typeof watches.create>): Promise<Watch> {
  const organism = await organismAt(w.tx, w.siteId, input.organismId)
  if (!organism) throw fieldProblem('organismId', 'choose an organism of the library, or one of your own')
  await liveRow(w.tx, w.siteId, 'block', input.blockId)
  const site = await getSite(w.tx, deps.clock, w.siteId)
  requireSeason(site, input.season)
  requireBiofix(site, input.season, input.biofix)
  const model = resolvedModel(organism, await listOwnFigures(w.tx, w.siteId), input.blockId)
  const id = await insertRow(w, 'watch', {
    organism_id: organism.id,
    block_id: input.blockId,
    season: input.season,
    biofix: input.biofix,
    biofix_note: input.biofixNote,
    source_known: input.sourceKnown,
    threshold_per_100: input.threshold?.per100 ?? null,
    threshold_reason: input.threshold?.reason ?? null,
    ...modelColumns(model),
  })
  return presentedWatch(await getWatch(w.tx, w.siteId, id))
}

export async function changeWatch(w: Write, deps: Deps, watchId: string, input: ParsedInputOf<typeof watches.update>): Promise<Watch> {
  const site = await getSite(w.tx, deps.clock, w.siteId)
  requireBiofix(site, (await getWatch(w.tx, w.siteId, watchId)).season, input.biofix)
  await updateRow(w, 'watch', watchId, input.rowVersion, {
    biofix: input.biofix,
    biofix_note: input.biofixNote,
    source_known: input.sourceKnown,
    threshold_per_100: input.threshold?.per100 ?? null,
    threshold_reason: input.threshold?.reason ?? null,
  })
  return presentedWatch(await getWatch(w.tx, w.siteId, watchId))
}

const modelColumns = ({ organism, pinned, hash }: ResolvedModel) => ({
  library_version: organism.version,
  model: JSON.stringify(pinned),
  model_hash: hash,
})

/** Pins a watch to the model as library and site have it now. It is only ever done when somebody asks for it. */
export async function takeModel(w: Write, watchId: string, rowVersion: number): Promise<Watch> {
  const watch = await getWatch(w.tx, w.siteId, watchId)
  const model = resolvedModel(organismOf(watch), await listOwnFigures(w.tx, w.siteId), watch.blockId)
  await updateRow(w, 'watch', watchId, rowVersion, modelColumns(model))
  return presentedWatch(await getWatch(w.tx, w.siteId, watchId))
}

/** The numbers that a watch is pinned to. */
export async function watchFigures(deps: Deps, siteId: string, watchId: string): Promise<ResponseOf<typeof watches.figures>> {
  const watch = await getWatch(deps.db, siteId, watchId)
  return figuresOf(organismOf(watch), watch.pinned.own ?? [])
}

/** Places of days on the axis that is even in heat, to a millionth. */
const shownAxis = (axis: readonly number[] | undefined): number[] | null => axis?.map((at) => Math.round(at * 1e6) / 1e6) ?? null

type TreatmentOnBand = WatchForecast['treatments'][number]

/** What rain since has left of the deposit of a treatment; null where nothing was left to wash off, or rain is not known. */
function withDeposit(treatment: Treatment, { place, today }: BlockWeather): TreatmentOnBand {
  const product = treatment.done?.label
  const day = treatment.done && dayNumber(treatment.done.day)
  if (!place || day === null || !product || product.residualDays === 0) return { ...treatment, depositLeft: null }
  let rain = 0
  for (let d = day; d < today; d++) rain += place.rain.get(d) ?? NaN
  return { ...treatment, depositLeft: Number.isNaN(rain) ? null : Math.round(residueLeft(rain) * 100) / 100 }
}

/** A watch's forecast with what it rests on, before anything that people did is laid beside it. */
export interface MadeForecast {
  watch: StoredWatch
  forecast: ReturnType<typeof forecastWatch>
  weather: BlockWeather
  bloom: StationPush | undefined
  /** Everything that it rests on, with versions. */
  key: string
}

/** The forecasts of all watches of a season. */
export async function forecastsOf(deps: Deps, site: Site, season: string): Promise<MadeForecast[]> {
  const { db, memo } = deps
  const [stored, blocks, wetEvents] = await Promise.all([
    listWatches(db, site.id, season),
    listBlocks(db, site.id),
    listWetEvents(db, site.id, civilDate(dayNumber(season) - LEAD_DAYS)),
  ])
  const weatherOf = await weatherOfBlocks(deps, site, season)
  const evidence = season === site.season.start ? await bloomsByStation(deps, site, blocks) : []
  const made: MadeForecast[] = []
  for (const watch of stored) {
    const block = blocks.find(({ id }) => id === watch.blockId)
    if (!block) continue
    const weather = await weatherOf(block)
    const organism = organismOf(watch)
    const events = wetEvents.filter(({ blockId }) => blockId === block.id)
    const versions = [watch, block, ...events].map(({ id, rowVersion }) => `${id}@${rowVersion}`).join()
    const bloom = bloomPush(watch, weather, evidence)
    const key = `forecast ${weather.key} ${versions} ${watch.modelHash} ${entryKey(watch)} ${weather.hemisphere} ${bloom ? JSON.stringify(bloom) : ''}`
    const forecast = memo.get(key, () => forecastWatch({ watch, organism, block: weather, ground: block, wetEvents: events, memo, bloom }))
    made.push({ watch, forecast, weather, bloom, key })
  }
  return made
}

/** Every watch of a season with its forecast, what was planned, done and counted. */
export async function getBand(deps: Deps, siteId: string, season: string): Promise<Band> {
  const { db, memo } = deps
  const site = await getSite(db, deps.clock, siteId)
  requireSeason(site, season)
  const start = dayNumber(season)
  const days = seasonLater(start, 1) - start
  const [made, rounds, treatments, products, own, route] = await Promise.all([
    forecastsOf(deps, site, season),
    listRounds(db, siteId, season),
    listTreatments(db, siteId, season),
    listProducts(db, siteId),
    listOwnFigures(db, siteId),
    routePlants(db, siteId),
  ])
  const today = dayNumber(site.today)
  const forecasts = made.map(({ watch, forecast, weather }): Band['watches'][number] => ({
    ...forecast,
    offer: offerTo(watch, organismOf(watch), own, memo, siteId),
    treatments: treatments.filter(({ watchId }) => watchId === watch.id).map((treatment) => withDeposit(treatment, weather)),
    rounds: rounds.filter(({ watchId }) => watchId === watch.id),
  }))
  const main = await (await weatherOfBlocks(deps, site, season))(null)
  const todayIndex = Math.min(Math.max(today - start, 0), days)
  // Everything that the answer shows, with versions: as long as none changes it is the same answer.
  const rest = createHash('sha256')
    .update(
      JSON.stringify([
        made.map(({ key }) => key),
        forecasts.map(({ offer }) => offer),
        treatments,
        rounds,
        products.map(({ id, rowVersion }) => [id, rowVersion]),
        route,
        site.today,
      ]),
    )
    .digest('base64url')
  const make = (): Band => ({
    season: { start: season, days, todayIndex },
    heatAxis: memo.get(`axis ${main.key}`, () => shownAxis(heatAxis(main.weather))),
    blooms: onRoute(
      memo.get(`blooms ${main.key}`, () => forecastBlooms(main, today, memo)),
      route,
    ),
    watches: forecasts,
  })
  return memo.get(`band ${siteId} ${season} ${main.key} ${rest}`, () => writtenOnce(make()))
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

/** What the blooms of a watch's station say of the season, where the watch follows them. */
function bloomPush(watch: StoredWatch, weather: BlockWeather, evidence: readonly StationBloom[]): StationPush | undefined {
  if (!watch.followsBloom) return undefined
  const shift = evidence.find(({ stationId }) => stationId === weather.followed?.station.id)?.shift
  if (!shift) return undefined
  const { heat, sd, prior, days, blooms, held } = shift
  return { heat, sd, prior, days, blooms, held }
}

/** Brings a watch back. Its organism and its block have to be there: it would have nothing to rest on. */
export async function restoreWatch(w: Write, watchId: string, rowVersion: number): Promise<Watch> {
  await restoreRow(w, 'watch', watchId, rowVersion)
  const watch = await getWatch(w.tx, w.siteId, watchId)
  await liveRow(w.tx, w.siteId, 'block', watch.blockId)
  if (!(await organismAt(w.tx, w.siteId, watch.organismId)))
    throw new HttpProblem(422, 'Its organism was removed from your own. Bring that back first, then the watch.')
  return presentedWatch(watch)
}

/** Whether what is seen in bloom moves the forecast of a watch. */
export async function followBloom(w: Write, watchId: string, follows: boolean, rowVersion: number): Promise<Watch> {
  await getWatch(w.tx, w.siteId, watchId)
  await updateRow(w, 'watch', watchId, rowVersion, { follows_bloom: follows })
  return presentedWatch(await getWatch(w.tx, w.siteId, watchId))
}

/** A watch of a site with what its season is looked at with. */
export async function watchInPlace(deps: Deps, siteId: string, watchId: string): Promise<{ watch: StoredWatch; site: Site; block: Block }> {
  const watch = await getWatch(deps.db, siteId, watchId)
  const site = await getSite(deps.db, deps.clock, siteId)
  const block = (await listBlocks(deps.db, siteId)).find(({ id }) => id === watch.blockId)
  if (!block) throw new HttpProblem(404, 'The block of this watch was removed. Restore it first.')
  return { watch, site, block }
}

/** Forecasts of a watch as they were issued, and why the newest differs from the one with the id, or from yesterday's. */
export async function watchMoves(deps: Deps, siteId: string, watchId: string, since: string | undefined): Promise<Moves> {
  const { watch, site, block } = await watchInPlace(deps, siteId, watchId)
  const blocks = await listBlocks(deps.db, siteId)
  const weather = await (await weatherOfBlocks(deps, site, watch.season))(block)
  const evidence = watch.season === site.season.start ? await bloomsByStation(deps, site, blocks) : []
  return movesOf(
    deps.db,
    siteId,
    {
      watch,
      organism: organismOf(watch),
      memo: deps.memo,
      today: site.today,
      now: await deps.clock.now(deps.db),
      bloom: bloomPush(watch, weather, evidence),
      weatherSeen: async (seen) => (await weatherOfBlocks(deps, site, watch.season, seen))(block),
    },
    since,
  )
}

/** Heat of each past season from the same biofix on, as its own weather brought it. */
export async function pastHeat(deps: Deps, siteId: string, watchId: string): Promise<ResponseOf<typeof watches.pastSeasons>> {
  const { watch, site, block } = await watchInPlace(deps, siteId, watchId)
  const weather = await (await weatherOfBlocks(deps, site, watch.season))(block)
  const { place } = weather
  if (!place) return []
  const { start } = placedAt(weather, watch.pinned, watch.biofix, deps.memo)
  const firstDay = dayNumber(watch.season)
  return knownPastYears(place.series, firstDay)
    .slice(0, 11)
    .flatMap((years) => {
      const season = seasonLater(firstDay, years)
      const then = seasonWeather({ series: place.series, firstDay: season, today: seasonLater(season, 1) })
      const heat = seasonHeat(then, watch.pinned.heat, sameDayInYear(start.day, years))
      const cumulative = heat.members[0]?.cumulative
      return cumulative && heat.missingDays.length === 0
        ? [{ season: civilDate(season), cumulative: Array.from(cumulative, (h) => Math.round(h * 10) / 10) }]
        : []
    })
}
