import type { Block, Moves, ParsedInputOf, ResponseOf, Site, Watch, watches } from '@bocado/contract'
import { civilDate, dayNumber, knownPastYears, LEAD_DAYS, sameDayInYear, seasonHeat, seasonLater, seasonWeather } from '@bocado/core'
import type { Organism } from '@bocado/library'
import { listBlocks } from '../blocks/store.js'
import { bloomsByStation } from '../bloom/evidence.js'
import { insertRow, restoreRow, updateRow, type Queryable, type Write } from '../database/index.js'
import { HttpProblem, fieldProblem, refusal } from '../http/problems.js'
import type { Deps } from '../http/route.js'
import { organismAt, organismsOf } from '../library/catalogue.js'
import { getSite, requireSeason } from '../sites/service.js'
import { weatherOfBlocks } from '../weather/groundWeather.js'
import { placedAt } from './forecast.js'
import { bloomPush } from './forecasts.js'
import { movesOf } from './issued.js'
import { figuresOf, listOwnFigures, resolvedModel, type ResolvedModel, type StoredFigure } from './models.js'
import { findWatch, listWatches, organismOf, presentedWatch, type StoredWatch } from './store.js'
import { liveBlock } from '../places/store.js'

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
    throw refusal('biofix', 'day.within-season-or-before', { days: LEAD_DAYS, from: { day: earliest }, to: { day: end } })
  if (biofix > site.today) throw refusal('biofix', 'day.has-happened', { today: { day: site.today } })
}

type Begun = ParsedInputOf<typeof watches.create>

const thresholdColumns = (threshold: Begun['threshold']) => ({
  threshold_per_100: threshold?.per100 ?? null,
  threshold_reason: threshold?.reason ?? null,
  threshold_scale: threshold?.scale ?? 'classes',
  threshold_steps: threshold?.steps.length ? JSON.stringify(threshold.steps) : null,
  threshold_economics: threshold?.economics ? JSON.stringify(threshold.economics) : null,
})

/** Watches an organism of the library, or of the site's own, by the numbers that hold in its block. */
const insertWatch = (w: Write, organism: Organism, figures: readonly StoredFigure[], input: Omit<Begun, 'organismId'>): Promise<string> =>
  insertRow(w, 'watch', {
    organism_id: organism.id,
    block_id: input.blockId,
    season: input.season,
    biofix: input.biofix,
    biofix_note: input.biofixNote,
    source_known: input.sourceKnown,
    ...thresholdColumns(input.threshold),
    ...modelColumns(resolvedModel(organism, figures, input.blockId)),
  })

export async function createWatch(w: Write, deps: Deps, input: Begun): Promise<Watch> {
  const organism = await organismAt(w.tx, w.siteId, input.organismId)
  if (!organism) throw fieldProblem('organismId', 'choose an organism of the library, or one of your own')
  await liveBlock(w.tx, w.siteId, input.blockId)
  const site = await getSite(w.tx, deps.clock, w.siteId)
  requireSeason(site, input.season)
  requireBiofix(site, input.season, input.biofix)
  const id = await insertWatch(w, organism, await listOwnFigures(w.tx, w.siteId), input)
  return presentedWatch(await getWatch(w.tx, w.siteId, id))
}

const NOTHING_SAID = { biofix: null, biofixNote: '', sourceKnown: 'unknown', threshold: null } as const

/** Watches several organisms in a block; none of them where one is watched there already or is none. */
export async function createWatches(w: Write, deps: Deps, input: ParsedInputOf<typeof watches.createSeveral>): Promise<Watch[]> {
  const { organismIds, ...where } = input
  await liveBlock(w.tx, w.siteId, where.blockId)
  requireSeason(await getSite(w.tx, deps.clock, w.siteId), where.season)
  const inBlock = async (): Promise<StoredWatch[]> =>
    (await listWatches(w.tx, w.siteId, where.season)).filter(({ blockId }) => blockId === where.blockId)
  const watched = await inBlock()
  const known = new Map((await organismsOf(w.tx, w.siteId)).map((organism) => [organism.id, organism]))
  const figures = await listOwnFigures(w.tx, w.siteId)
  for (const [i, organismId] of organismIds.entries()) {
    const path = `organismIds.${i}`
    const organism = known.get(organismId)
    if (!organism) throw fieldProblem(path, 'choose an organism of the library, or one of your own')
    if (watched.some((watch) => watch.organismId === organismId))
      throw fieldProblem(path, `${organism.name}: this block is watched for it already`)
    await insertWatch(w, organism, figures, { ...where, ...NOTHING_SAID })
  }
  const made = new Map((await inBlock()).map((watch) => [watch.organismId, watch]))
  return organismIds.map((id) => presentedWatch(made.get(id)!))
}

/** The id of a watch that is begun; null where somebody began it at the same moment. */
async function unlessBegun(begun: Promise<string>): Promise<string | null> {
  try {
    return await begun
  } catch (error) {
    const { code, message } = error as { code?: string; message?: string }
    if (code === 'ER_DUP_ENTRY' && message?.includes('one_per_season')) return null
    throw error
  }
}

/**
 * Watches in a season again what was watched in an earlier one: by the numbers that hold in its block now, with its threshold. The biofix is of
 * its season, and heavy disease of last season is what is asked anew. What is watched already stays as it is; a block that was removed is left out.
 */
export async function carryOn(w: Write, deps: Deps, { from, season }: ParsedInputOf<typeof watches.carryOn>): Promise<Watch[]> {
  const site = await getSite(w.tx, deps.clock, w.siteId)
  requireSeason(site, season)
  requireSeason(site, from)
  if (season > site.season.start) throw fieldProblem('season', `begins on ${season}; until then nothing can be seen, counted or done in it`)
  const [before, now, blocks, organisms, figures] = await Promise.all([
    listWatches(w.tx, w.siteId, from),
    listWatches(w.tx, w.siteId, season),
    listBlocks(w.tx, w.siteId),
    organismsOf(w.tx, w.siteId),
    listOwnFigures(w.tx, w.siteId),
  ])
  const made: string[] = []
  for (const { organismId, blockId, threshold, sourceKnown } of before) {
    const organism = organisms.find(({ id }) => id === organismId)
    const isWatched = now.some((watch) => watch.organismId === organismId && watch.blockId === blockId)
    if (!organism || isWatched || !blocks.some(({ id }) => id === blockId)) continue
    const { now: _, ...own } = threshold ?? { now: null }
    const id = await unlessBegun(
      insertWatch(w, organism, figures, {
        ...NOTHING_SAID,
        blockId,
        season,
        sourceKnown: sourceKnown === 'heavy' ? 'unknown' : sourceKnown,
        threshold: threshold === null ? null : (own as NonNullable<Begun['threshold']>),
      }),
    )
    if (id !== null) made.push(id)
  }
  const all = await listWatches(w.tx, w.siteId, season)
  return all.filter(({ id }) => made.includes(id)).map(presentedWatch)
}

export async function changeWatch(w: Write, deps: Deps, watchId: string, input: ParsedInputOf<typeof watches.update>): Promise<Watch> {
  const site = await getSite(w.tx, deps.clock, w.siteId)
  requireBiofix(site, (await getWatch(w.tx, w.siteId, watchId)).season, input.biofix)
  await updateRow(w, 'watch', watchId, input.rowVersion, {
    biofix: input.biofix,
    biofix_note: input.biofixNote,
    source_known: input.sourceKnown,
    ...thresholdColumns(input.threshold),
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

/** Brings a watch back. Its organism and its block have to be there: it would have nothing to rest on. */
export async function restoreWatch(w: Write, watchId: string, rowVersion: number): Promise<Watch> {
  await restoreRow(w, 'watch', watchId, rowVersion)
  const watch = await getWatch(w.tx, w.siteId, watchId)
  await liveBlock(w.tx, w.siteId, watch.blockId)
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
