import type { crops as operations, CropEntry, ParsedInputOf, Planting, Site } from '@bocado/contract'
import {
  annualStandsUntil,
  civilDate,
  cropCalendar,
  dayNumber,
  flowerSpan,
  ROTATION_YEARS,
  seasonLater,
  type FlowerSpan,
  type StageOnTheWay,
} from '@bocado/core'
import { crops, findCrop, type Crop, type CropStage } from '@bocado/library'
import {
  insertOnce,
  insertRow,
  isStored,
  liveRow,
  madeColumns,
  restoreRow,
  updateRow,
  type Queryable,
  type Write,
} from '../database/index.js'
import { listHarvests, type StoredHarvest } from '../harvests/store.js'
import { fieldProblem, refusal } from '../http/problems.js'
import type { Deps } from '../http/route.js'
import { tree } from '../places/store.js'
import { getSite, requireSeason, seasonOf } from '../sites/service.js'
import { listPlantings, listStages, type StoredPlanting, type StoredStage } from './store.js'

/** The crops of the library. */
export const knownCrops = (): CropEntry[] =>
  crops.map(({ id, name, words, family, lives, stages }) => ({ id, name, words, family, lives, stages: stages.map((stage) => stage.id) }))

const cropOf = ({ crop }: Pick<StoredPlanting, 'crop'>): Crop | undefined => findCrop(crop)

/** The season to which a stage of a planting belongs: an annual has each once, a perennial anew in each year. */
const seasonOfStage = (site: Pick<Site, 'latitude'>, planting: Pick<StoredPlanting, 'crop' | 'standsFrom'>, day: string): string =>
  seasonOf(site, cropOf(planting)?.lives === 'annual' ? planting.standsFrom : day)

/** The last day on which a planting stood: as somebody said, or as an annual ends by itself; null for what stands on. */
function lastDay(site: Pick<Site, 'latitude'>, planting: Pick<StoredPlanting, 'crop' | 'standsFrom' | 'standsUntil'>): string | null {
  if (planting.standsUntil !== null || cropOf(planting)?.lives !== 'annual') return planting.standsUntil
  const begin = dayNumber(seasonOf(site, planting.standsFrom))
  return civilDate(annualStandsUntil(dayNumber(planting.standsFrom), [begin, seasonLater(begin, 1), seasonLater(begin, 2)]))
}

/** Whether a planting stood somewhere in a season. */
function stoodIn(site: Pick<Site, 'latitude'>, planting: StoredPlanting, { start, end }: Site['season']): boolean {
  const until = lastDay(site, planting)
  return planting.standsFrom <= end && (until === null || until >= start)
}

interface Dated {
  stages: Planting['stages']
  flowers: FlowerSpan | null
}

/** What was first picked where a planting stands, and by whom. */
type Picked = Pick<StoredHarvest, 'pickedOn' | 'personName'>

/** What was seen of a planting in a season and what is expected, in day numbers for its flowers. */
function dated(crop: Crop, { standsUntil }: StoredPlanting, seen: readonly StoredStage[], picked: Picked | undefined): Dated {
  const days = new Map<string, number>(seen.map(({ stage, seenOn }) => [stage, dayNumber(seenOn)]))
  const isToldByHarvest = picked !== undefined && !days.has(FIRST_HARVEST)
  if (isToldByHarvest) days.set(FIRST_HARVEST, dayNumber(picked.pickedOn))
  const calendar = cropCalendar(crop.stages, days)
  const of = (id: string | undefined) => calendar.find((one) => one.id === id)
  const [from, until] = [of(crop.flowers?.from), of(crop.flowers?.until)]
  // A later stage that was seen tells that it has flowered, or has ended to, though nobody wrote that day down.
  const after = (id: string | undefined): number | null =>
    calendar.slice(calendar.findIndex((one) => one.id === id)).find((one) => one.seen !== null)?.seen ?? null
  const opened = from?.seen ?? (from?.isPast ? after(crop.flowers?.from) : null)
  const ended = until?.seen ?? (until?.isPast ? after(crop.flowers?.until) : null)
  const flowers = crop.flowers
    ? flowerSpan({ opened, ended }, { from: from?.expected?.from ?? null, until: until?.expected?.until ?? null })
    : null
  // What was cleared flowers no more.
  const cleared = standsUntil === null ? null : dayNumber(standsUntil)
  return {
    stages: calendar.map(({ seen: on, expected, isPast }, i) => {
      const stage = crop.stages[i]!.id
      const written = seen.find((one) => one.stage === stage)
      const personName = written?.personName ?? picked?.personName ?? ''
      return {
        stage,
        seen:
          on === null
            ? null
            : { record: written ? { id: written.id, rowVersion: written.rowVersion } : null, on: civilDate(on), personName },
        expected: expected && { from: civilDate(expected.from), until: civilDate(expected.until) },
        isPast,
      }
    }),
    flowers: flowers && cleared !== null && (flowers.until ?? Infinity) > cleared ? { ...flowers, until: cleared } : flowers,
  }
}

const FIRST_HARVEST: CropStage = 'first-harvest'

/** The first that was picked of a planting: where it alone stood in that place on that day. */
function firstPicked(planting: StoredPlanting, all: readonly StoredPlanting[], harvests: readonly StoredHarvest[]): Picked | undefined {
  const standsOn = ({ standsFrom, standsUntil }: StoredPlanting, day: string): boolean =>
    standsFrom <= day && (standsUntil === null || day <= standsUntil)
  return harvests
    .filter(
      ({ placeId, pickedOn }) =>
        placeId === planting.placeId &&
        standsOn(planting, pickedOn) &&
        !all.some((other) => other.id !== planting.id && other.placeId === placeId && standsOn(other, pickedOn)),
    )
    .sort((x, y) => (x.pickedOn < y.pickedOn ? -1 : 1))[0]
}

interface Calendar {
  site: Site
  season: Site['season']
  /** What stood somewhere in the season. */
  plantings: (StoredPlanting & { known: Crop | undefined; dated: Dated })[]
  /** What stood anywhere in any season. */
  all: StoredPlanting[]
}

/** What the calendar is read from: also the transaction in which something is written. */
export type Reading = Pick<Deps, 'clock'> & { db: Queryable }

async function calendarOf({ db, clock }: Reading, siteId: string, start?: string): Promise<Calendar> {
  const [site, all, stages] = await Promise.all([getSite(db, clock, siteId), listPlantings(db, siteId), listStages(db, siteId)])
  if (start !== undefined) requireSeason(site, start)
  const season = start === undefined ? site.season : { start, end: civilDate(seasonLater(dayNumber(start), 1) - 1) }
  const harvests = await listHarvests(db, siteId, season.start)
  const plantings = all
    .filter((planting) => stoodIn(site, planting, season))
    .map((planting) => {
      const known = cropOf(planting)
      const own = stages.filter((one) => one.plantingId === planting.id && (known?.lives === 'annual' || one.season === season.start))
      return {
        ...planting,
        known,
        dated: known ? dated(known, planting, own, firstPicked(planting, all, harvests)) : { stages: [], flowers: null },
      }
    })
  return { site, season, plantings, all }
}

/** The crop calendar of a season. */
export async function plantingsOf(deps: Deps, siteId: string, start: string): Promise<Planting[]> {
  const { plantings, all, site } = await calendarOf(deps, siteId, start)
  const places = await tree(deps.db, siteId)
  const above = (id: string | null | undefined): string[] => (id ? [id, ...above(places.get(id)?.parentId)] : [])
  return plantings.map(({ known, dated: { stages, flowers }, ...planting }) => ({
    ...planting,
    cropName: known?.name ?? planting.crop,
    stages,
    flowers:
      flowers && flowers.how !== 'unknown' && flowers.from !== null && flowers.until !== null
        ? { from: civilDate(flowers.from), until: civilDate(flowers.until), how: flowers.how }
        : null,
    sameFamily: known ? beforeIt(site, planting, known, all, above) : [],
  }))
}

/** Annual crops of a family that stood in the same soil in the years before. */
function beforeIt(
  site: Pick<Site, 'latitude'>,
  planting: StoredPlanting,
  { family, lives }: Crop,
  all: readonly StoredPlanting[],
  above: (id: string) => string[],
): Planting['sameFamily'] {
  if (lives === 'perennial') return []
  const since = civilDate(dayNumber(planting.standsFrom) - Math.round(ROTATION_YEARS * 365.25))
  const here = above(planting.placeId)
  return all.flatMap((other) => {
    const crop = cropOf(other)
    const until = lastDay(site, other)
    if (other.id === planting.id || crop?.family !== family || until === null || until > planting.standsFrom || until < since) return []
    const isSameSoil = here.includes(other.placeId) || above(other.placeId).includes(planting.placeId)
    return isSameSoil ? [{ cropName: crop.name, until }] : []
  })
}

/** What stood or stands anywhere at a site, each until its last day. */
export async function standsOf(
  db: Queryable,
  site: Pick<Site, 'id' | 'latitude'>,
): Promise<{ placeId: string; crop: string; from: string; until: string }[]> {
  return (await listPlantings(db, site.id)).flatMap((planting) => {
    const until = lastDay(site, planting)
    return until === null ? [] : [{ placeId: planting.placeId, crop: planting.crop, from: planting.standsFrom, until }]
  })
}

/** Of each planting of the season that runs the day by which its last harvest is over: as it was seen or cleared, else the latest that is expected. */
export async function lastHarvests(deps: Reading, site: Pick<Site, 'id'>): Promise<{ placeId: string; until: string }[]> {
  const { plantings } = await calendarOf(deps, site.id)
  return plantings.flatMap(({ placeId, standsUntil, dated: { stages } }) => {
    const last = stages.find(({ stage }) => stage === 'last-harvest')
    const until = standsUntil ?? last?.seen?.on ?? last?.expected?.until
    return until === undefined ? [] : [{ placeId, until }]
  })
}

/** What of the crops may flower in or beside a block this season, for bees; days as day numbers. */
export async function cropsInFlower(
  deps: Deps,
  siteId: string,
  blockId: string,
): Promise<(FlowerSpan & { plantId: string; name: string })[]> {
  const [{ plantings }, places] = [await calendarOf(deps, siteId), await tree(deps.db, siteId)]
  const isWithin = (id: string | null | undefined): boolean => !!id && (id === blockId || isWithin(places.get(id)?.parentId))
  return plantings.flatMap(({ placeId, crop, known, dated: { flowers } }) =>
    known && flowers && isWithin(placeId) ? [{ plantId: `crop-${crop}`, name: known.name, ...flowers }] : [],
  )
}

/** How far the crop of a block is, for thresholds that change with it: of several that which stands there since latest. */
export async function stagesInBlocks(deps: Reading, siteId: string, season: string): Promise<(blockId: string) => StageOnTheWay[]> {
  const [{ plantings }, places] = [await calendarOf(deps, siteId, season), await tree(deps.db, siteId)]
  const isWithin = (id: string | null | undefined, blockId: string): boolean =>
    !!id && (id === blockId || isWithin(places.get(id)?.parentId, blockId))
  const dayOf = (day: string): number => dayNumber(day)
  return (blockId) => {
    const there = plantings.filter(({ placeId, standsUntil }) => standsUntil === null && isWithin(placeId, blockId))
    const latest = there.toSorted((a, b) => (a.standsFrom < b.standsFrom ? 1 : -1))[0]
    return (latest?.dated.stages ?? []).map(({ stage, seen, expected, isPast }) => ({
      id: stage,
      seen: seen && dayOf(seen.on),
      expected: expected && { from: dayOf(expected.from), until: dayOf(expected.until) },
      isPast,
    }))
  }
}

type Fields = Omit<ParsedInputOf<typeof operations.add>, 'begins'>

async function columnsOf(w: Write, deps: Deps, input: Fields) {
  const { today } = await getSite(w.tx, deps.clock, w.siteId)
  if (!findCrop(input.crop)) throw fieldProblem('crop', 'choose a crop of the library')
  if (!(await tree(w.tx, w.siteId)).has(input.placeId)) throw fieldProblem('placeId', 'choose a place of this site')
  if (input.standsFrom > today) throw refusal('standsFrom', 'day.future', { today: { day: today } })
  if (input.standsUntil !== null && input.standsUntil > today) throw refusal('standsUntil', 'day.future', { today: { day: today } })
  return {
    place_id: input.placeId,
    crop: input.crop,
    variety: input.variety,
    stands_from: input.standsFrom,
    stands_until: input.standsUntil,
    note: input.note,
  }
}

/** Says what stands somewhere, and with which stage it began. */
export async function addPlanting(w: Write, deps: Deps, { begins, ...input }: ParsedInputOf<typeof operations.add>) {
  const id = await insertRow(w, 'planting', await columnsOf(w, deps, input))
  if (begins !== null) await addStage(w, deps, { plantingId: id, stage: begins, seenOn: input.standsFrom, made: null })
  return { id, rowVersion: 1 }
}

export async function changePlanting(w: Write, deps: Deps, id: string, { rowVersion, ...input }: ParsedInputOf<typeof operations.update>) {
  const before = await liveRow(w.tx, w.siteId, 'planting', id)
  if (before['crop'] !== input.crop && (await listStages(w.tx, w.siteId)).some(({ plantingId }) => plantingId === id))
    throw fieldProblem('crop', 'its stages were seen on another crop; remove this planting and begin a new one')
  await updateRow(w, 'planting', id, rowVersion, await columnsOf(w, deps, input))
  return { id, rowVersion: rowVersion + 1 }
}

/** Records the day of a stage; the last harvest or clearing of a crop leaves it standing until somebody says that it is gone. */
export async function addStage(w: Write, deps: Deps, input: ParsedInputOf<typeof operations.addStage>) {
  if (input.id !== undefined && (await isStored(w, 'crop_stage', input.id))) return { id: input.id, rowVersion: 1 }
  const planting = await plantingFor(w.tx, w.siteId, input.plantingId)
  const site = await getSite(w.tx, deps.clock, w.siteId)
  const crop = cropOf(planting)
  if (!crop?.stages.some(({ id }) => id === input.stage))
    throw fieldProblem('stage', `is no stage of ${crop?.name ?? planting.crop}: ${crop?.stages.map(({ id }) => id).join(', ') ?? ''}`)
  if (input.seenOn > site.today) throw refusal('seenOn', 'day.future', { today: { day: site.today } })
  const isEarly = input.seenOn < planting.standsFrom && input.stage !== 'sown'
  if (isEarly || (planting.standsUntil !== null && input.seenOn > planting.standsUntil))
    throw fieldProblem('seenOn', 'lies outside the days on which it stood there')
  const columns = {
    planting_id: planting.id,
    stage: input.stage,
    season: seasonOfStage(site, planting, input.seenOn),
    seen_on: input.seenOn,
    ...madeColumns(w, input.made),
  }
  const known = () => fieldProblem('seenOn', 'the day of this stage is recorded already; remove it first if it is wrong')
  return { id: await insertOnce(w, 'crop_stage', columns, known, input.id), rowVersion: 1 }
}

async function plantingFor(db: Queryable, siteId: string, id: string): Promise<StoredPlanting> {
  const planting = (await listPlantings(db, siteId)).find((one) => one.id === id)
  if (!planting) throw fieldProblem('plantingId', 'choose a planting of this site')
  return planting
}

export async function restoreOne(w: Write, table: 'planting' | 'crop_stage', id: string, rowVersion: number) {
  await restoreRow(w, table, id, rowVersion)
  return { id, rowVersion: rowVersion + 1 }
}
