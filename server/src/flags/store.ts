import type { Flag, FlagVisit, Search, SecondLook } from '@bocado/contract'
import { jsonOf, type Queryable, type Row } from '../database/index.js'

/** A flag without what is known of it from its visits and the library. */
export type StoredFlag = Pick<
  Flag,
  'id' | 'organismId' | 'placeId' | 'placeName' | 'number' | 'colour' | 'position' | 'note' | 'prior' | 'rowVersion'
>
export type StoredVisit = Omit<FlagVisit, 'methodName'> & { flagId: string; season: string }
export type StoredSearch = Omit<Search, 'organismNames'>

/** The flags of a site by their numbers; what stands in a place that was removed stays a fact. */
export async function listFlags(db: Queryable, siteId: string): Promise<StoredFlag[]> {
  const [rows] = await db.query<Row[]>(
    `SELECT f.*, l.name AS place_name FROM flag f JOIN place l ON l.id = f.place_id
     WHERE f.site_id = ? AND f.deleted_at IS NULL ORDER BY f.number, f.created_at, f.id`,
    [siteId],
  )
  return rows.map((row) => ({
    id: row['id'] as string,
    organismId: row['organism_id'] as string | null,
    placeId: row['place_id'] as string,
    placeName: row['place_name'] as string,
    number: row['number'] as number,
    colour: row['colour'] as Flag['colour'],
    position:
      row['latitude'] === null
        ? null
        : {
            latitude: row['latitude'] as number,
            longitude: row['longitude'] as number,
            accuracyM: row['accuracy_m'] as number | null,
          },
    note: row['note'] as string,
    prior: row['prior'] as Flag['prior'],
    rowVersion: row['row_version'] as number,
  }))
}

/** Visits to the flags of a site until a day, in the order in which they were made, whoever sent theirs first. */
export async function listVisits(db: Queryable, siteId: string, until: string): Promise<StoredVisit[]> {
  const [rows] = await db.query<Row[]>(
    `SELECT v.*, p.name AS person_name FROM flag_visit v JOIN person p ON p.id = v.changed_by
     WHERE v.site_id = ? AND v.deleted_at IS NULL AND v.seen_on <= ?
     ORDER BY v.seen_on, COALESCE(v.recorded_at, v.created_at), v.queue_order, v.id`,
    [siteId, until],
  )
  return rows.map((row) => ({
    id: row['id'] as string,
    flagId: row['flag_id'] as string,
    season: row['season'] as string,
    seenOn: row['seen_on'] as string,
    sight: row['sight'] as FlagVisit['sight'],
    plants: row['plants'] as number | null,
    areaM2: row['area_m2'] as number | null,
    cover: row['cover'] as FlagVisit['cover'],
    stage: row['stage'] as string | null,
    height: row['height'] as FlagVisit['height'],
    methodId: row['method_id'] as string | null,
    taken:
      row['taken'] === null ? null : { amount: row['taken'] as number, unit: row['taken_unit'] as NonNullable<FlagVisit['taken']>['unit'] },
    minutes: row['minutes'] as number | null,
    dueOn: row['due_on'] as string | null,
    photoId: row['photo_id'] as string | null,
    note: row['note'] as string,
    personName: row['person_name'] as string,
    rowVersion: row['row_version'] as number,
  }))
}

/** Searches of a site until a day, the newest first. */
export async function listSearches(db: Queryable, siteId: string, until: string): Promise<StoredSearch[]> {
  const [rows] = await db.query<Row[]>(
    `SELECT s.*, l.name AS place_name, p.name AS person_name FROM search s
     JOIN place l ON l.id = s.place_id JOIN person p ON p.id = s.changed_by
     WHERE s.site_id = ? AND s.deleted_at IS NULL AND s.searched_on <= ? ORDER BY s.searched_on DESC, s.created_at DESC, s.id`,
    [siteId, until],
  )
  return rows.map((row) => ({
    id: row['id'] as string,
    placeId: row['place_id'] as string,
    placeName: row['place_name'] as string,
    organismIds: jsonOf<string[]>(row['organisms']),
    searchedOn: row['searched_on'] as string,
    minutes: row['minutes'] as number | null,
    viewM: row['view_m'] as number | null,
    track: row['track'] === null ? null : jsonOf<NonNullable<Search['track']>>(row['track']),
    lengthM: row['length_m'] as number | null,
    covered:
      row['covered_share'] === null
        ? null
        : { share: row['covered_share'] as number, from: row['covered_from'] as NonNullable<Search['covered']>['from'] },
    found: Boolean(row['found']),
    note: row['note'] as string,
    personName: row['person_name'] as string,
    rowVersion: row['row_version'] as number,
  }))
}

/** What two people found one after the other, the newest first. */
export async function listSecondLooks(db: Queryable, siteId: string, until: string): Promise<Omit<SecondLook, 'organismName'>[]> {
  const [rows] = await db.query<Row[]>(
    `SELECT s.*, l.name AS place_name, p.name AS person_name FROM second_look s JOIN place l ON l.id = s.place_id
     JOIN person p ON p.id = s.changed_by WHERE s.site_id = ? AND s.deleted_at IS NULL AND s.looked_on <= ? ORDER BY s.looked_on DESC, s.id`,
    [siteId, until],
  )
  return rows.map((row) => ({
    id: row['id'] as string,
    placeId: row['place_id'] as string,
    placeName: row['place_name'] as string,
    organismId: row['organism_id'] as string,
    lookedOn: row['looked_on'] as string,
    first: row['found_first'] as number,
    second: row['found_second'] as number,
    both: row['found_both'] as number,
    note: row['note'] as string,
    personName: row['person_name'] as string,
    rowVersion: row['row_version'] as number,
  }))
}
