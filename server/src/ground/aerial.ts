import type { AerialImage, ground, ParsedInputOf } from '@bocado/contract'
import { insertRow, liveRow, restoreRow, updateRow, type Queryable, type Row, type Write } from '../database/index.js'
import { fieldProblem, HttpProblem } from '../http/problems.js'
import { cleanJpeg } from '../library/jpeg.js'
import { farFrom, positionOf } from './service.js'

/** A picture whose middle lies farther from the site is most likely laid wrongly. */
const FAR_KM = 60

const imageOf = (row: Row): AerialImage => ({
  id: row['id'] as string,
  name: row['name'] as string,
  south: row['south'] as number,
  west: row['west'] as number,
  north: row['north'] as number,
  east: row['east'] as number,
  rowVersion: row['row_version'] as number,
})

/** Pictures that lie under the map, the newest last; without the pictures themselves. */
export async function listImages(db: Queryable, siteId: string): Promise<AerialImage[]> {
  const [rows] = await db.query<Row[]>(
    'SELECT id, name, south, west, north, east, row_version FROM aerial_image WHERE site_id = ? AND deleted_at IS NULL ORDER BY created_at, id',
    [siteId],
  )
  return rows.map(imageOf)
}

export async function imageFile(db: Queryable, siteId: string, id: string): Promise<Buffer> {
  const [[row]] = await db.query<Row[]>(
    'SELECT f.jpeg FROM aerial_image_file f JOIN aerial_image a ON a.id = f.image_id WHERE a.id = ? AND a.site_id = ? AND a.deleted_at IS NULL',
    [id, siteId],
  )
  if (!row) throw new HttpProblem(404, 'There is no such picture at this site.')
  return row['jpeg'] as Buffer
}

type Corners = Pick<AerialImage, 'south' | 'west' | 'north' | 'east'>

async function requireNear(w: Write, { south, west, north, east }: Corners): Promise<void> {
  const middle = { type: 'Point' as const, coordinates: [(west + east) / 2, (south + north) / 2] as [number, number] }
  const far = farFrom(await positionOf(w.tx, w.siteId), middle)
  if (far !== null && far > FAR_KM)
    throw fieldProblem(
      'south',
      `lies ${Math.round(far).toLocaleString('en-US')} km from the site’s position; are latitude and longitude right?`,
    )
}

async function getImage(w: Write, id: string): Promise<AerialImage> {
  return (await listImages(w.tx, w.siteId)).find((image) => image.id === id) as AerialImage
}

export async function addImage(w: Write, { jpeg, ...input }: ParsedInputOf<typeof ground.addImage>): Promise<AerialImage> {
  await requireNear(w, input)
  const clean = cleanJpeg(Buffer.from(jpeg, 'base64'))
  if ('refused' in clean) throw fieldProblem('jpeg', clean.refused)
  const id = await insertRow(w, 'aerial_image', input)
  // Beside its row: what is written to the audit is where it lies, not the picture.
  await w.tx.query('INSERT INTO aerial_image_file (image_id, jpeg) VALUES (?, ?)', [id, clean.jpeg])
  return getImage(w, id)
}

export async function moveImage(
  w: Write,
  id: string,
  { rowVersion, ...corners }: ParsedInputOf<typeof ground.moveImage>,
): Promise<AerialImage> {
  await liveRow(w.tx, w.siteId, 'aerial_image', id)
  await requireNear(w, corners)
  await updateRow(w, 'aerial_image', id, rowVersion, corners)
  return getImage(w, id)
}

export async function restoreImage(w: Write, id: string, rowVersion: number) {
  await restoreRow(w, 'aerial_image', id, rowVersion)
  return { id, rowVersion: rowVersion + 1 }
}
