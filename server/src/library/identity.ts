import type { IdentityCheck, ParsedInputOf, Photo, ResponseOf, library } from '@bocado/contract'
import { identityVerdict, type CharacterAnswer } from '@bocado/core'
import type { Organism } from '@bocado/library'
import { randomUUID } from 'node:crypto'
import {
  insertRow,
  isStored,
  jsonOf,
  liveRow,
  madeColumns,
  restoreRow,
  updateRow,
  type Queryable,
  type Row,
  type Write,
} from '../database/index.js'
import { HttpProblem, fieldProblem, refusal } from '../http/problems.js'
import type { Deps } from '../http/route.js'
import { getSite } from '../sites/service.js'
import { requireOrganism } from './catalogue.js'
import { cleanJpeg } from './jpeg.js'
import { liveBlock } from '../places/store.js'

type Answers = Readonly<Record<string, CharacterAnswer>>

function verdictOf({ about, hazards }: Organism, answers: Answers): ResponseOf<typeof library.verdict> {
  const { characters, lookAlikes } = about.identity
  const unknown = Object.keys(answers).find((id) => !characters.some((c) => c.id === id))
  if (unknown !== undefined)
    throw fieldProblem('answers', `${unknown} is no character of it; use ${characters.map(({ id }) => id).join(', ')}`)
  return identityVerdict(
    characters.map(({ id, others, decisive, by }) => ({ id, others: others.of, decisive, by })),
    lookAlikes.map(({ id }) => id),
    answers,
    { itself: hazards.some(({ touch }) => touch), lookAlikes: lookAlikes.filter(({ burns }) => burns).map(({ id }) => id) },
  )
}

const ANSWERS: readonly CharacterAnswer[] = ['here', 'others', 'unsure']

/** `comb:here,hole:unsure` as answers. */
export async function verdictSoFar(deps: Deps, siteId: string, organismId: string, text: string) {
  const organism = await requireOrganism(deps.db, siteId, organismId)
  const pairs = text.split(',').filter((pair) => pair !== '')
  const answers = Object.fromEntries(
    pairs.map((pair) => {
      const [id = '', said] = pair.split(':')
      const answer = ANSWERS.find((a) => a === said)
      if (!answer) throw fieldProblem('answers', `${pair} is no answer; write character and answer, as comb:here`)
      return [id, answer]
    }),
  )
  return verdictOf(organism, answers)
}

const SELECT = 'SELECT c.*, p.name AS person FROM identity_check c JOIN person p ON p.id = c.changed_by'

const checkOf = (row: Row): IdentityCheck => ({
  id: row['id'] as string,
  organismId: row['organism_id'] as string,
  blockId: row['block_id'] as string | null,
  checkedOn: row['checked_on'] as string,
  answers: jsonOf<IdentityCheck['answers']>(row['answers']),
  verdict: row['verdict'] as IdentityCheck['verdict'],
  likely: jsonOf<string[]>(row['likely']),
  photoId: row['photo_id'] as string | null,
  note: row['note'] as string,
  personName: row['person'] as string,
  rowVersion: row['row_version'] as number,
})

export async function listChecks(db: Queryable, siteId: string, organismId: string): Promise<IdentityCheck[]> {
  const [rows] = await db.query<Row[]>(
    `${SELECT} WHERE c.site_id = ? AND c.organism_id = ? AND c.deleted_at IS NULL ORDER BY c.checked_on DESC, c.created_at DESC`,
    [siteId, organismId],
  )
  return rows.map(checkOf)
}

/** Keeps a check with its verdict, as evidence of identity. */
export async function addCheck(w: Write, deps: Deps, input: ParsedInputOf<typeof library.check>): Promise<IdentityCheck> {
  if (input.id !== undefined && (await isStored(w, 'identity_check', input.id))) return getCheck(w.tx, w.siteId, input.id)
  const organism = await requireOrganism(w.tx, w.siteId, input.organismId)
  const { verdict, likely } = verdictOf(organism, input.answers)
  if (input.blockId !== null) await liveBlock(w.tx, w.siteId, input.blockId)
  const { today } = await getSite(w.tx, deps.clock, w.siteId)
  const checkedOn = input.checkedOn ?? today
  if (checkedOn > today) throw refusal('checkedOn', 'day.future', { today: { day: today } })
  const photoId = input.photo ? await addPhoto(w, input, input.photo, today) : null
  const columns = {
    organism_id: input.organismId,
    block_id: input.blockId,
    checked_on: checkedOn,
    answers: JSON.stringify(input.answers),
    verdict,
    likely: JSON.stringify(likely),
    photo_id: photoId,
    note: input.note,
    ...madeColumns(w, input.made),
  }
  return getCheck(w.tx, w.siteId, await insertRow(w, 'identity_check', columns, input.id))
}

async function getCheck(db: Queryable, siteId: string, id: string): Promise<IdentityCheck> {
  const [[row]] = await db.query<Row[]>(`${SELECT} WHERE c.id = ? AND c.site_id = ? AND c.deleted_at IS NULL`, [id, siteId])
  if (!row) throw new HttpProblem(404, 'There is no such check at this site.')
  return checkOf(row)
}

export async function restoreCheck(w: Write, id: string, rowVersion: number): Promise<{ id: string; rowVersion: number }> {
  await restoreRow(w, 'identity_check', id, rowVersion)
  return { id, rowVersion: rowVersion + 1 }
}

type PhotoInput = NonNullable<ParsedInputOf<typeof library.check>['photo']>

export async function addPhoto(
  w: Write,
  { organismId, blockId }: { organismId: string; blockId: string | null },
  photo: PhotoInput,
  today: string,
): Promise<string> {
  if (photo.takenOn > today) throw refusal('photo.takenOn', 'day.future', { today: { day: today } })
  const clean = cleanJpeg(Buffer.from(photo.jpeg, 'base64'))
  if ('refused' in clean) throw fieldProblem('photo.jpeg', clean.refused)
  const id = await insertRow(
    w,
    'photo',
    {
      organism_id: organismId,
      block_id: blockId,
      latitude: photo.position?.latitude ?? null,
      longitude: photo.position?.longitude ?? null,
      taken_on: photo.takenOn,
      shows: organismId,
    },
    randomUUID(),
  )
  await w.tx.query('INSERT INTO photo_file (photo_id, jpeg) VALUES (?, ?)', [id, clean.jpeg])
  return id
}

const photoOf = (row: Row): Photo => ({
  id: row['id'] as string,
  organismId: row['organism_id'] as string,
  shows: row['shows'] as string,
  reference: Boolean(row['reference']),
  takenOn: row['taken_on'] as string,
  position:
    row['latitude'] === null || row['longitude'] === null
      ? null
      : { latitude: row['latitude'] as number, longitude: row['longitude'] as number },
  rowVersion: row['row_version'] as number,
})

export async function listPhotos(db: Queryable, siteId: string, organismId: string): Promise<Photo[]> {
  const [rows] = await db.query<Row[]>(
    'SELECT * FROM photo WHERE site_id = ? AND organism_id = ? AND deleted_at IS NULL ORDER BY taken_on DESC, created_at DESC',
    [siteId, organismId],
  )
  return rows.map(photoOf)
}

/** The picture itself. */
export async function photoFile(db: Queryable, siteId: string, id: string): Promise<Buffer> {
  const [[row]] = await db.query<Row[]>(
    'SELECT f.jpeg FROM photo_file f JOIN photo p ON p.id = f.photo_id WHERE p.id = ? AND p.site_id = ? AND p.deleted_at IS NULL',
    [id, siteId],
  )
  if (!row) throw new HttpProblem(404, 'There is no such photo at this site.')
  return row['jpeg'] as Buffer
}

/** Says what a photo shows. Only what somebody confirmed belongs to the reference set. */
export async function confirmPhoto(w: Write, id: string, input: ParsedInputOf<typeof library.confirmPhoto>): Promise<Photo> {
  const before = await liveRow(w.tx, w.siteId, 'photo', id)
  const organism = await requireOrganism(w.tx, w.siteId, before['organism_id'] as string)
  const known = [organism.id, ...organism.about.identity.lookAlikes.map((l) => l.id)]
  if (!known.includes(input.shows)) throw fieldProblem('shows', `must be ${organism.name} or one of its look-alikes: ${known.join(', ')}`)
  await updateRow(w, 'photo', id, input.rowVersion, { shows: input.shows, reference: input.reference })
  return photoOf(await liveRow(w.tx, w.siteId, 'photo', id))
}
