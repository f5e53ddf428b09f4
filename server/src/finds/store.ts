import type { FindLink, PublicFind } from '@bocado/contract'
import { toString as pictureOf } from 'qrcode'
import { instantOf, type Queryable, type Row } from '../database/index.js'
import { HttpProblem } from '../http/problems.js'

const LINKS = `SELECT l.*, p.name AS place_name, (SELECT COUNT(*) FROM public_find f WHERE f.find_link_id = l.id) AS sent
  FROM find_link l LEFT JOIN place p ON p.id = l.place_id`

/** @param address under which phones reach this server; undefined where none does */
async function linkOf(row: Row, address: string | undefined): Promise<FindLink> {
  const code = row['code'] as string
  const link = address === undefined ? null : `${address}/found#${code}`
  return {
    id: row['id'] as string,
    name: row['name'] as string,
    placeId: row['place_id'] as string | null,
    placeName: row['place_name'] as string | null,
    endsOn: row['ends_on'] as string | null,
    code,
    picture: link === null ? null : await pictureOf(link, { type: 'svg', margin: 1 }),
    link,
    sent: Number(row['sent']),
    rowVersion: row['row_version'] as number,
  }
}

/** The links of a site that stand, the newest first. */
export async function listLinks(db: Queryable, siteId: string, address: string | undefined): Promise<FindLink[]> {
  const [rows] = await db.query<Row[]>(`${LINKS} WHERE l.site_id = ? AND l.deleted_at IS NULL ORDER BY l.created_at DESC, l.id`, [siteId])
  return Promise.all(rows.map((row) => linkOf(row, address)))
}

/** A link by the code on its board, of a site that is worked on; undefined where none stands. */
export async function linkByCode(db: Queryable, code: string): Promise<Row | undefined> {
  const [[row]] = await db.query<Row[]>(
    `SELECT l.*, s.name AS site_name FROM find_link l JOIN site s ON s.id = l.site_id
     WHERE l.code = ? AND l.deleted_at IS NULL AND s.deleted_at IS NULL AND s.archived_at IS NULL ORDER BY l.created_at LIMIT 1`,
    [code],
  )
  return row
}

const FINDS = `SELECT f.*, l.name AS link_name, l.place_id, (SELECT COUNT(*) FROM public_find_photo p WHERE p.public_find_id = f.id) AS photos
  FROM public_find f JOIN find_link l ON l.id = f.find_link_id`

const findOf = (row: Row): PublicFind => ({
  id: row['id'] as string,
  linkName: row['link_name'] as string,
  placeId: row['place_id'] as string | null,
  said: row['said'] as string,
  note: row['note'] as string,
  seenOn: row['seen_on'] as string,
  position:
    row['latitude'] === null || row['longitude'] === null
      ? null
      : { latitude: row['latitude'] as number, longitude: row['longitude'] as number, accuracyM: row['accuracy_m'] as number | null },
  hasPhoto: Number(row['photos']) > 0,
  sentAt: instantOf(row['created_at'] as string),
  state: row['state'] as PublicFind['state'],
  flagId: row['flag_id'] as string | null,
  rowVersion: row['row_version'] as number,
})

/** So many that were put away are still shown. */
const MOST_SHOWN = 100

/** What waits, the oldest first, and behind it what was put away, the last first. */
export async function listFinds(db: Queryable, siteId: string): Promise<PublicFind[]> {
  const [waiting] = await db.query<Row[]>(`${FINDS} WHERE f.site_id = ? AND f.state = 'waits' ORDER BY f.created_at, f.id`, [siteId])
  const [away] = await db.query<Row[]>(
    `${FINDS} WHERE f.site_id = ? AND f.state = 'refused' ORDER BY f.changed_at DESC, f.id LIMIT ${MOST_SHOWN}`,
    [siteId],
  )
  return [...waiting, ...away].map(findOf)
}

export async function getFind(db: Queryable, siteId: string, id: string): Promise<PublicFind> {
  const [[row]] = await db.query<Row[]>(`${FINDS} WHERE f.site_id = ? AND f.id = ?`, [siteId, id])
  if (!row) throw new HttpProblem(404, 'There is no such find at this site.')
  return findOf(row)
}

/** The photo of a find. */
export async function findPhoto(db: Queryable, siteId: string, id: string): Promise<Buffer> {
  const [[row]] = await db.query<Row[]>(
    'SELECT p.jpeg FROM public_find_photo p JOIN public_find f ON f.id = p.public_find_id WHERE f.id = ? AND f.site_id = ?',
    [id, siteId],
  )
  if (!row) throw new HttpProblem(404, 'This find has no photo.')
  return row['jpeg'] as Buffer
}
