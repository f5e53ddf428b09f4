import type { flags, ParsedInputOf, ResponseOf } from '@bocado/contract'
import { bankAlive, civilDate, coveredShare, dayNumber } from '@bocado/core'
import {
  insertRow,
  isStored,
  liveRow,
  madeColumns,
  removeRow,
  restoreRow,
  updateRow,
  type Queryable,
  type Row,
  type Write,
} from '../database/index.js'
import { shapesOf } from '../ground/files.js'
import { flatFrom, isSurface, lengthOf, middleOf, ringsOf } from '../ground/geometry.js'
import { requireNear } from '../ground/service.js'
import { listShapes } from '../ground/store.js'
import { fieldProblem, HttpProblem, refusal } from '../http/problems.js'
import type { Deps } from '../http/route.js'
import { methodsOf, organismsOf } from '../library/catalogue.js'
import { addPhoto } from '../library/identity.js'
import { tree, type StoredPlace } from '../places/store.js'
import { getSite, seasonOf } from '../sites/service.js'
import { bankYears, storedFlag } from './known.js'
import { lookOf } from './looks.js'
import { listVisits } from './store.js'

/** What a photo shows of which nobody knows what it is. */
const UNKNOWN = 'unknown'
/** The last day there is, for reading all visits. */
const ALWAYS = '9999-12-31'

type Seen = Omit<ParsedInputOf<typeof flags.visit>, 'flagId' | 'id' | 'made'>
type Pin = Pick<ParsedInputOf<typeof flags.add>, 'organismId' | 'placeId' | 'number' | 'colour' | 'position' | 'note'>

/** The block around a place, or the place itself. */
function blockOf(places: ReadonlyMap<string, StoredPlace>, placeId: string): string {
  const parent = places.get(placeId)?.parentId
  return parent && places.has(parent) ? blockOf(places, parent) : placeId
}

async function requirePin(w: Write, { organismId, placeId, position }: Omit<Pin, 'note'>): Promise<Map<string, StoredPlace>> {
  const places = await tree(w.tx, w.siteId)
  if (!places.has(placeId)) throw fieldProblem('placeId', 'choose a place of this site')
  if (organismId !== null && !(await organismsOf(w.tx, w.siteId)).some(({ id }) => id === organismId))
    throw fieldProblem('organismId', 'choose an organism of the library, or leave it unnamed')
  await requireNear(w, position)
  return places
}

/** The number on the pin: as it was typed, or the next of the site. */
async function numberOf(w: Write, typed: number | null): Promise<number> {
  if (typed !== null) return typed
  const [[row]] = await w.tx.query<Row[]>('SELECT MAX(number) AS most FROM flag WHERE site_id = ?', [w.siteId])
  return ((row?.['most'] as number | null) ?? 0) + 1
}

const pinColumns = ({ organismId, placeId, colour, position }: Pin, number: number) => ({
  organism_id: organismId,
  place_id: placeId,
  number,
  colour,
  latitude: position?.latitude ?? null,
  longitude: position?.longitude ?? null,
  accuracy_m: position?.accuracyM ?? null,
})

/** Refuses what a visit cannot have seen there. */
async function requireSeen(w: Write, deps: Deps, organismId: string | null, input: Seen, flagId: string | null): Promise<void> {
  const site = await getSite(w.tx, deps.clock, w.siteId)
  if (input.seenOn > site.today) throw refusal('seenOn', 'day.future', { today: { day: site.today } })
  const organism = (await organismsOf(w.tx, w.siteId)).find(({ id }) => id === organismId)
  if (input.stage !== null && organism && !organism.stages.some(({ id }) => id === input.stage))
    throw fieldProblem('stage', `is no stage of ${organism.name}: ${organism.stages.map(({ id }) => id).join(', ')}`)
  if (input.methodId !== null && !(await methodsOf(w.tx, w.siteId)).some(({ id }) => id === input.methodId))
    throw fieldProblem('methodId', 'choose a way of the library')
  if (input.sight !== 'gone') return
  if (flagId === null) throw fieldProblem('sight', 'a flag is set where something stands')
  const before = (await listVisits(w.tx, w.siteId, ALWAYS)).filter((visit) => visit.flagId === flagId)
  const alive = bankAlive(before.map(lookOf), bankYears(organism))
  if (organism?.kind === 'weed' && !organism.bank)
    throw fieldProblem('sight', 'how long its seed or root lives is not known here: say that none stands')
  if (alive && alive.until > dayNumber(input.seenOn))
    throw fieldProblem('sight', `not before ${civilDate(alive.until)}: until then it may live in the soil. Say that none stands`)
}

async function insertVisit(
  w: Write,
  deps: Deps,
  flagId: string,
  { organismId, blockId }: { organismId: string | null; blockId: string },
  { photo, taken, ...input }: Seen,
  made: object,
  id?: string,
): Promise<string> {
  const site = await getSite(w.tx, deps.clock, w.siteId)
  const photoId = photo ? await addPhoto(w, { organismId: organismId ?? UNKNOWN, blockId }, photo, site.today) : null
  return insertRow(
    w,
    'flag_visit',
    {
      flag_id: flagId,
      season: seasonOf(site, input.seenOn),
      seen_on: input.seenOn,
      sight: input.sight,
      plants: input.plants,
      area_m2: input.areaM2,
      cover: input.cover,
      stage: input.stage,
      height: input.height,
      method_id: input.methodId,
      taken: taken?.amount ?? null,
      taken_unit: taken?.unit ?? null,
      minutes: input.minutes,
      due_on: input.dueOn,
      photo_id: photoId,
      note: input.note,
      ...made,
    },
    id,
  )
}

/** Sets a flag with its first visit, under the id that its device gave it. */
export async function addFlag(w: Write, deps: Deps, { id, made, ...input }: ParsedInputOf<typeof flags.add>) {
  if (id !== undefined && (await isStored(w, 'flag', id))) return { id, rowVersion: 1 }
  const places = await requirePin(w, input)
  await requireSeen(w, deps, input.organismId, input, null)
  const madeBy = madeColumns(w, made)
  // Sent twice at once, the second waits here for the first; and no two take one number.
  await liveRow(w.tx, w.siteId, 'site', w.siteId, true)
  if (id !== undefined && (await isStored(w, 'flag', id))) return { id, rowVersion: 1 }
  const flagId = await insertRow(w, 'flag', { ...pinColumns(input, await numberOf(w, input.number)), ...madeBy }, id)
  const of = { organismId: input.organismId, blockId: blockOf(places, input.placeId) }
  await insertVisit(w, deps, flagId, of, input, madeBy)
  return { id: flagId, rowVersion: 1 }
}

/** Corrects a flag, or names what it marks: its visits and their photos are then of that organism. */
export async function changeFlag(w: Write, id: string, { rowVersion, ...input }: ParsedInputOf<typeof flags.update>) {
  await requirePin(w, input)
  const before = await liveRow(w.tx, w.siteId, 'flag', id, true)
  await updateRow(w, 'flag', id, rowVersion, {
    ...pinColumns(input, input.number ?? (before['number'] as number)),
    note: input.note,
    prior: input.prior,
  })
  if (before['organism_id'] !== input.organismId) await renamePhotos(w, id, input.organismId ?? UNKNOWN)
  return { id, rowVersion: rowVersion + 1 }
}

async function renamePhotos(w: Write, flagId: string, organismId: string): Promise<void> {
  const [rows] = await w.tx.query<Row[]>(
    `SELECT p.id, p.row_version FROM photo p JOIN flag_visit v ON v.photo_id = p.id
     WHERE v.flag_id = ? AND v.site_id = ? AND p.deleted_at IS NULL ORDER BY p.id`,
    [flagId, w.siteId],
  )
  for (const row of rows)
    await updateRow(w, 'photo', row['id'] as string, row['row_version'] as number, { organism_id: organismId, shows: organismId })
}

export async function restoreFlag(w: Write, id: string, rowVersion: number) {
  await restoreRow(w, 'flag', id, rowVersion)
  return { id, rowVersion: rowVersion + 1 }
}

/** Records a visit; two phones that were at one flag each add theirs, in the order in which they were there. */
export async function addVisit(w: Write, deps: Deps, { id, made, flagId, ...input }: ParsedInputOf<typeof flags.visit>) {
  if (id !== undefined && (await isStored(w, 'flag_visit', id))) return { id, rowVersion: 1 }
  const flag = await storedFlag(w.tx, w.siteId, flagId)
  if (!flag) throw fieldProblem('flagId', 'choose a flag of this site')
  await requireSeen(w, deps, flag.organismId, input, flagId)
  const madeBy = madeColumns(w, made)
  await liveRow(w.tx, w.siteId, 'flag', flagId, true)
  if (id !== undefined && (await isStored(w, 'flag_visit', id))) return { id, rowVersion: 1 }
  const of = { organismId: flag.organismId, blockId: blockOf(await tree(w.tx, w.siteId), flag.placeId) }
  return { id: await insertVisit(w, deps, flagId, of, input, madeBy, id), rowVersion: 1 }
}

export async function removeVisit(w: Write, id: string, rowVersion: number) {
  const visit = await liveRow(w.tx, w.siteId, 'flag_visit', id)
  const flagId = visit['flag_id'] as string
  await liveRow(w.tx, w.siteId, 'flag', flagId, true)
  const others = (await listVisits(w.tx, w.siteId, ALWAYS)).filter((one) => one.flagId === flagId && one.id !== id)
  if (others.length === 0) throw new HttpProblem(422, 'This is all that is known of the flag. Remove the flag itself.')
  return removeRow(w, 'flag_visit', id, rowVersion)
}

export async function restoreVisit(w: Write, id: string, rowVersion: number) {
  await restoreRow(w, 'flag_visit', id, rowVersion)
  return { id, rowVersion: rowVersion + 1 }
}

/** Records a search with its effort; a track over a drawn place tells which share of it was seen. */
export async function addSearch(w: Write, deps: Deps, { id, made, ...input }: ParsedInputOf<typeof flags.addSearch>) {
  if (id !== undefined && (await isStored(w, 'search', id))) return { id, rowVersion: 1 }
  const site = await getSite(w.tx, deps.clock, w.siteId)
  if (input.searchedOn > site.today) throw refusal('searchedOn', 'day.future', { today: { day: site.today } })
  if (!(await tree(w.tx, w.siteId)).has(input.placeId)) throw fieldProblem('placeId', 'choose a place of this site')
  const known = new Set((await organismsOf(w.tx, w.siteId)).map((one) => one.id))
  const unknown = input.organismIds.findIndex((one) => !known.has(one))
  if (unknown !== -1) throw fieldProblem(`organismIds.${unknown}`, 'choose an organism of the library')
  const byTrack = await shareSeen(w.tx, w.siteId, input)
  const madeBy = madeColumns(w, made)
  await liveRow(w.tx, w.siteId, 'place', input.placeId, true)
  if (id !== undefined && (await isStored(w, 'search', id))) return { id, rowVersion: 1 }
  const columns = {
    place_id: input.placeId,
    season: seasonOf(site, input.searchedOn),
    organisms: JSON.stringify([...new Set(input.organismIds)]),
    searched_on: input.searchedOn,
    minutes: input.minutes,
    view_m: input.viewM,
    track: input.track && JSON.stringify(input.track),
    length_m: input.track && input.track.reduce((sum, line) => sum + (lengthOf({ type: 'LineString', coordinates: line }) ?? 0), 0),
    covered_share: byTrack ?? input.coveredShare,
    covered_from: byTrack !== null ? 'track' : input.coveredShare !== null ? 'said' : null,
    found: input.found,
    note: input.note,
    ...madeBy,
  }
  return { id: await insertRow(w, 'search', columns, id), rowVersion: 1 }
}

/** Which share of a place was seen from a track; null without one, without a width, or where the place is not drawn. */
async function shareSeen(
  db: Queryable,
  siteId: string,
  { placeId, track, viewM }: Pick<ParsedInputOf<typeof flags.addSearch>, 'placeId' | 'track' | 'viewM'>,
): Promise<number | null> {
  if (!track || viewM === null) return null
  const outline = (await listShapes(db, siteId)).find((shape) => shape.placeId === placeId)?.geometry
  if (!outline || !isSurface(outline)) return null
  const flat = flatFrom(middleOf(outline))
  return coveredShare({ rings: ringsOf(outline).map((ring) => ring.map(flat)), tracks: track.map((line) => line.map(flat)), width: viewM })
}

export async function restoreSearch(w: Write, id: string, rowVersion: number) {
  await restoreRow(w, 'search', id, rowVersion)
  return { id, rowVersion: rowVersion + 1 }
}

/** The ways that a file holds: its tracks, routes and lines; one that comes back to its start is a way, too. */
export function tracksOf(text: string): ResponseOf<typeof flags.readTrack> {
  const tracks = shapesOf(text).shapes.flatMap(({ name, geometry }) => {
    const lines =
      geometry.type === 'LineString' ? [geometry.coordinates] : geometry.type === 'Polygon' ? geometry.coordinates.slice(0, 1) : []
    return lines.map((line) => ({ name, line, lengthM: lengthOf({ type: 'LineString', coordinates: line }) ?? 0 }))
  })
  if (tracks.length === 0) throw fieldProblem('text', 'holds no track: no way with at least 2 points')
  return { tracks }
}

/** Records what two people found one after the other on the same ground. */
export async function addSecondLook(w: Write, deps: Deps, input: ParsedInputOf<typeof flags.addSecondLook>) {
  const { today } = await getSite(w.tx, deps.clock, w.siteId)
  if (input.lookedOn > today) throw refusal('lookedOn', 'day.future', { today: { day: today } })
  if (!(await tree(w.tx, w.siteId)).has(input.placeId)) throw fieldProblem('placeId', 'choose a place of this site')
  if (!(await organismsOf(w.tx, w.siteId)).some(({ id }) => id === input.organismId))
    throw fieldProblem('organismId', 'choose an organism of the library')
  const columns = {
    place_id: input.placeId,
    organism_id: input.organismId,
    looked_on: input.lookedOn,
    found_first: input.first,
    found_second: input.second,
    found_both: input.both,
    note: input.note,
  }
  return { id: await insertRow(w, 'second_look', columns), rowVersion: 1 }
}

export async function restoreSecondLook(w: Write, id: string, rowVersion: number) {
  await restoreRow(w, 'second_look', id, rowVersion)
  return { id, rowVersion: rowVersion + 1 }
}
