import { createHash } from 'node:crypto'
import type { Block, ParsedInputOf, PlantingDates, prevention, Site } from '@bocado/contract'
import {
  civilDate,
  dayNumber,
  frostsOf,
  growingDays,
  plantingDates,
  ROTATION_YEARS,
  seasonLater,
  usualAttack,
  type FrostDays,
  type Meeting,
} from '@bocado/core'
import { crops, findCrop, type Crop, type Organism } from '@bocado/library'
import { listBlocks } from '../blocks/store.js'
import { getBlock } from '../blocks/service.js'
import { standsOf } from '../crops/service.js'
import type { Queryable, Row } from '../database/index.js'
import { kilometres } from '../ground/geometry.js'
import { fieldProblem } from '../http/problems.js'
import type { Deps } from '../http/route.js'
import { organismsOf } from '../library/catalogue.js'
import { blockOf, isOneGround, tree, type StoredPlace } from '../places/store.js'
import { getSite } from '../sites/service.js'
import { listOwnFigures, resolvedModel } from '../watches/models.js'
import { listWatches, type StoredWatch } from '../watches/store.js'
import { weatherOfBlocks, type GroundWeather } from '../weather/groundWeather.js'
import { attackAt } from './attacks.js'

type Query = ParsedInputOf<typeof prevention.dates>

/** For each day on which a crop may be sown or planted at a place: what of its pests it would meet, frost, and its harvest. */
export async function datesOfPlanting(deps: Deps, siteId: string, query: Query): Promise<PlantingDates> {
  const site = await getSite(deps.db, deps.clock, siteId)
  const crop = cropOf(query)
  const places = await tree(deps.db, siteId)
  const blockId = blockOf(places, query.placeId)?.id
  if (blockId === undefined) throw fieldProblem('placeId', 'choose a block of this site, or a part of one')
  const block = await getBlock(deps.db, siteId, blockId)
  const thisStart = dayNumber(site.season.start)
  const start = query.year === 'this' ? thisStart : seasonLater(thisStart, 1)
  const at = await (await weatherOfBlocks(deps, site, civilDate(start)))(block)
  const { length } = at.weather
  const met = await meetingsOf(deps, site, { crop, block, at, isThis: query.year === 'this' })
  const frost = frostDays(at, thisStart)
  const round = (n: number): number => Math.round(n * 1000) / 1000
  const asked = {
    stages: crop.stages,
    begins: query.begins,
    meetings: met.map(({ meeting }) => meeting),
    frost,
    frostKills: crop.frost === 'kills',
    growth: usualGrowth(at, thisStart),
    days: Array.from({ length }, (_, day) => day),
  }
  // A year of days with their bounds takes a while: whoever asks again has them at once.
  const dates = deps.memo.get(`planting ${keyOf(asked)}`, () => plantingDates(asked))
  const bounds = ({ p10, p50, p90 }: { p10: number; p50: number; p90: number }) => ({ p10: round(p10), p50: round(p50), p90: round(p90) })
  return {
    season: { start: civilDate(start), days: length, first: Math.max(0, dayNumber(site.today) - start) },
    crop: {
      id: crop.id,
      name: crop.name,
      family: crop.family,
      stages: crop.stages,
      openFrom: crop.openFrom ?? null,
      frostKills: crop.frost === 'kills',
    },
    begins: query.begins,
    meetings: met.map(({ shown }) => shown),
    dates: dates.map(({ day, met: shares, harvest, springFrost, autumnFrost, grows }) => ({
      day,
      met: shares.map(({ share, beforeHarvest }) => ({ share: bounds(share), beforeHarvest: bounds(beforeHarvest) })),
      harvest: harvest && bounds(harvest),
      springFrost: springFrost === null ? null : round(springFrost),
      autumnFrost: autumnFrost === null ? null : round(autumnFrost),
      grows,
    })),
    frostSeasons: frost ? Math.min(frost.lastSpring.length, frost.firstAutumn.length) : 0,
    ...(await groundOf(deps.db, site, places, { crop, placeId: query.placeId, season: start })),
  }
}

/** Of everything that days of planting rest on. */
function keyOf({ meetings, ...rest }: Parameters<typeof plantingDates>[0]): string {
  const hash = createHash('sha256').update(JSON.stringify(rest))
  for (const { id, from, until, attack } of meetings) {
    hash.update(`${id} ${from} ${until} ${attack.seasons}`)
    for (const way of attack.ways) hash.update(way)
  }
  return hash.digest('base64url')
}

function cropOf({ crop: id, begins }: Query): Crop {
  const crop = findCrop(id)
  if (!crop) throw fieldProblem('crop', 'choose a crop of the library')
  if (crop.lives !== 'annual') throw fieldProblem('crop', 'stands for years: its date decides nothing')
  if (!crop.stages.some((stage) => stage.id === begins)) {
    const names = crop.stages.flatMap((stage) => (stage.id === 'sown' || stage.id === 'planted' ? [stage.id] : []))
    throw fieldProblem('begins', `${crop.name} is ${names.join(' or ')}`)
  }
  return crop
}

interface Met {
  meeting: Meeting
  shown: PlantingDates['meetings'][number]
}

/** What comes to a crop at a place, those that somebody watched at the site first. */
async function meetingsOf(
  deps: Deps,
  site: Site,
  { crop, block, at, isThis }: { crop: Crop; block: Block; at: GroundWeather; isThis: boolean },
): Promise<Met[]> {
  const { db } = deps
  const [all, figures, watches, known] = [
    await organismsOf(db, site.id),
    await listOwnFigures(db, site.id),
    isThis ? await listWatches(db, site.id, site.season.start) : [],
    await everWatched(db, site.id),
  ]
  const found: Met[] = []
  for (const organism of all)
    for (const meets of organism.about.meets) {
      if (!meets.crops.includes(crop.id)) continue
      const watch = watchIn(watches, organism, block)
      const { pinned: model } = watch ?? resolvedModel(organism, figures, block.id)
      const attack = await attackAt(deps, site, organism, { model, biofix: watch?.biofix ?? null, at, stages: meets.stages })
      if (!attack) continue
      const days = usualAttack(attack.attack)
      const most = Math.max(...days)
      const reaches = (method: string): boolean => organism.about.reach.some((one) => one.method === method)
      found.push({
        meeting: { id: organism.id, attack: attack.attack, from: meets.from, until: meets.until },
        shown: {
          organismId: organism.id,
          name: organism.name,
          isKnownHere: known.has(organism.id),
          by: attack.by,
          seasons: attack.seasons,
          confidence: attack.by === 'model' ? (model.confidence ?? 'approximate') : meets.confidence,
          from: meets.from,
          until: meets.until,
          stages: meets.stages.map((id) => organism.stages.find((stage) => stage.id === id)?.name ?? id),
          curve: Array.from(days, (part) => (most > 0 ? Math.round((part / most) * 1000) / 1000 : 0)),
          wintersThere: meets.wintersThere,
          coverHelps: reaches('row-cover'),
          stripHelps: reaches('trap-crop'),
          varieties: organism.about.varieties.map(({ what, effect }) => ({ what, effect })),
        },
      })
    }
  return found.sort((a, b) => Number(b.shown.isKnownHere) - Number(a.shown.isKnownHere) || (a.shown.name < b.shown.name ? -1 : 1))
}

/** The watch of an organism in a block, or one elsewhere at the site: its biofix and numbers hold better than the library's. */
function watchIn(watches: readonly StoredWatch[], { id }: Organism, block: Block): StoredWatch | undefined {
  const own = watches.filter(({ organismId }) => organismId === id)
  return own.find(({ blockId }) => blockId === block.id) ?? own[0]
}

async function everWatched(db: Queryable, siteId: string): Promise<Set<string>> {
  const [rows] = await db.query<Row[]>('SELECT DISTINCT organism_id FROM watch WHERE site_id = ? AND deleted_at IS NULL', [siteId])
  return new Set(rows.map((row) => row['organism_id'] as string))
}

/** Past seasons that are looked back on. */
const PAST_SEASONS = 30

function frostDays({ place }: GroundWeather, thisStart: number): FrostDays | null {
  if (!place) return null
  const seasons = Array.from({ length: PAST_SEASONS }, (_, k) => seasonLater(thisStart, -1 - k))
    .filter((start) => start >= place.series.firstDay)
    .map((start) => frostsOf(place.series, start))
    .filter(({ springKnown, autumnKnown }) => springKnown && autumnKnown)
  if (seasons.length === 0) return null
  const after = (day: number | null, season: number): number | null => (day === null ? null : day - season)
  return {
    lastSpring: seasons.map(({ lastSpring, season }) => after(lastSpring, season)),
    firstAutumn: seasons.map(({ firstAutumn, season }) => after(firstAutumn, season)),
  }
}

/** Between which days of a season it is usually warm enough to grow: the middle of the past seasons. */
function usualGrowth({ place }: GroundWeather, thisStart: number): { from: number; until: number } | null {
  if (!place) return null
  const { firstDay, min, max } = place.series
  const spans = Array.from({ length: PAST_SEASONS }, (_, k) => seasonLater(thisStart, -1 - k))
    .filter((start) => start >= firstDay)
    .flatMap((start) => {
      const length = seasonLater(start, 1) - start
      const means = Array.from({ length }, (_, i) => ((min[start + i - firstDay] ?? NaN) + (max[start + i - firstDay] ?? NaN)) / 2)
      return growingDays(means) ?? []
    })
  const middle = (days: readonly number[]): number => [...days].sort((a, b) => a - b)[days.length >> 1] as number
  return spans.length === 0 ? null : { from: middle(spans.map(({ from }) => from)), until: middle(spans.map(({ until }) => until)) }
}

/** So many other places are named. */
const NAMED_PLACES = 6

/** What of the family stood in the soil of a place, and where none stood. */
async function groundOf(
  db: Queryable,
  site: Site,
  places: ReadonlyMap<string, StoredPlace>,
  { crop, placeId, season }: { crop: Crop; placeId: string; season: number },
): Promise<Pick<PlantingDates, 'sameFamily' | 'clear'>> {
  const since = civilDate(season - Math.round(ROTATION_YEARS * 365.25))
  const family = new Set(crops.filter(({ family: of, lives }) => of === crop.family && lives === 'annual').map(({ id }) => id))
  // What is sown one after the other in one season has not wintered there yet.
  const stood = (await standsOf(db, site)).filter(
    ({ crop: of, from, until }) => family.has(of) && until >= since && from < civilDate(season),
  )
  const blocks = await listBlocks(db, site.id)
  const [wasThere, elsewhere] = [
    stood.filter((one) => isOneGround(places, one.placeId, placeId)),
    blocks.filter(({ id, kind }) => !isOneGround(places, id, placeId) && GROWS_CROPS.has(kind)),
  ]
  const where = (block: Block | undefined): [number, number] | null =>
    block?.latitude != null && block.longitude != null ? [block.longitude, block.latitude] : null
  const infested = stood.flatMap((one): [number, number][] => {
    const there = where(blocks.find(({ id }) => isOneGround(places, id, one.placeId)))
    return there ? [there] : []
  })
  return {
    sameFamily: [...new Set(wasThere.map(({ crop: of }) => of))].map((of) => ({
      cropName: findCrop(of)?.name ?? of,
      until:
        wasThere
          .flatMap((one) => (one.crop === of ? one.until : []))
          .sort()
          .at(-1) ?? '',
    })),
    clear: elsewhere
      .filter(({ id }) => !stood.some((one) => isOneGround(places, one.placeId, id)))
      .map((block) => ({ placeId: block.id, name: block.name, metres: farFrom(where(block), infested) }))
      .sort((a, b) => (b.metres ?? -1) - (a.metres ?? -1) || (a.name < b.name ? -1 : 1))
      .slice(0, NAMED_PLACES),
  }
}

/** Kinds of ground on which annual crops are grown. */
const GROWS_CROPS: ReadonlySet<string> = new Set(['field', 'bed', 'tunnel', 'pots'])

function farFrom(here: [number, number] | null, others: readonly [number, number][]): number | null {
  if (!here || others.length === 0) return null
  return Math.round(Math.min(...others.map((there) => kilometres(here, there))) * 1000)
}
