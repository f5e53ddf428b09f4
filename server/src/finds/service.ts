import { randomInt } from 'node:crypto'
import type { FindLink, finds, ParsedInputOf, PublicFind, ResponseOf } from '@bocado/contract'
import { insertRow, restoreRow, updateRow, type Queryable, type Row, type Write } from '../database/index.js'
import { addFlag } from '../flags/service.js'
import { fieldProblem, HttpProblem, refusal } from '../http/problems.js'
import type { Deps } from '../http/route.js'
import { cleanJpeg } from '../library/jpeg.js'
import { tree } from '../places/store.js'
import { getSite } from '../sites/service.js'
import { findPhoto, getFind, linkByCode, listLinks } from './store.js'

/** Letters and digits that nobody mistakes for each other on a board. */
const LETTERS = '23456789abcdefghjkmnpqrstuvwxyz'
const CODE_LENGTH = 12
/** One board in a day, and a site's inbox: more is somebody who means harm, or nobody who looks. */
const MOST_A_DAY = 40
const MOST_WAITING = 300

const newCode = (): string => Array.from({ length: CODE_LENGTH }, () => LETTERS[randomInt(LETTERS.length)]).join('')

async function getLink(w: Write, id: string, address: string | undefined): Promise<FindLink> {
  const link = (await listLinks(w.tx, w.siteId, address)).find((one) => one.id === id)
  if (!link) throw new HttpProblem(404, 'There is no such link at this site.')
  return link
}

/** Makes a link with a code of its own. @param address under which phones reach this server */
export async function addLink(
  w: Write,
  deps: Deps,
  { name, placeId, endsOn }: ParsedInputOf<typeof finds.addLink>,
  address: string | undefined,
): Promise<FindLink> {
  if (placeId !== null && !(await tree(w.tx, w.siteId)).has(placeId)) throw fieldProblem('placeId', 'choose a place of this site')
  const { today } = await getSite(w.tx, deps.clock, w.siteId)
  if (endsOn !== null && endsOn < today) throw fieldProblem('endsOn', 'has passed already: choose a later day, or none')
  return getLink(w, await insertRow(w, 'find_link', { name, place_id: placeId, code: newCode(), ends_on: endsOn }), address)
}

export async function restoreLink(w: Write, id: string, rowVersion: number, address: string | undefined): Promise<FindLink> {
  await restoreRow(w, 'find_link', id, rowVersion)
  return getLink(w, id, address)
}

/** The link of a code as it stands today. Throws 404 where there is none, 410 where its last day is over. */
async function openLink({ db, clock }: Pick<Deps, 'db' | 'clock'>, code: string): Promise<{ link: Row; today: string }> {
  const link = await linkByCode(db, code)
  if (!link) throw new HttpProblem(404, 'Nobody takes finds by this code any more. Is it typed as it stands on the board?')
  const { today } = await getSite(db, clock, link['site_id'] as string)
  const endsOn = link['ends_on'] as string | null
  if (endsOn !== null && endsOn < today) throw new HttpProblem(410, 'Finds are not taken by this code any more. Thank you all the same.')
  return { link, today }
}

/** Whose link it is: nothing of the site but its name and where the board hangs. */
export async function lookAtFindLink(deps: Deps, code: string): Promise<ResponseOf<typeof finds.look>> {
  const { link, today } = await openLink(deps, code)
  return { site: link['site_name'] as string, name: link['name'] as string, today }
}

async function requireRoom(tx: Queryable, link: Row): Promise<void> {
  const [[row]] = await tx.query<Row[]>(
    `SELECT (SELECT COUNT(*) FROM public_find WHERE find_link_id = ? AND created_at > UTC_TIMESTAMP() - INTERVAL 1 DAY) AS today,
            (SELECT COUNT(*) FROM public_find WHERE site_id = ? AND state = 'waits') AS waiting`,
    [link['id'], link['site_id']],
  )
  if (Number(row!['today']) >= MOST_A_DAY || Number(row!['waiting']) >= MOST_WAITING)
    throw new HttpProblem(429, 'More was sent here than can be looked at. Try again tomorrow.', { retryAfter: 3600 })
}

/** Keeps what somebody without an account sent, for a person who works there to look at. */
export async function sendFind(deps: Deps & { db: Write['tx'] }, input: ParsedInputOf<typeof finds.send>): Promise<{ id: string }> {
  const { db: tx } = deps
  const { id, position, photo } = input
  const { link, today } = await openLink(deps, input.code)
  // Of many who send at once none sees an inbox with more room than there is.
  await tx.query('SELECT id FROM site WHERE id = ? FOR UPDATE', [link['site_id']])
  const [[known]] = await tx.query<Row[]>('SELECT find_link_id FROM public_find WHERE id = ?', [id])
  if (known) {
    if (known['find_link_id'] === link['id']) return { id }
    throw new HttpProblem(422, 'This find carries the number of another one. Send it anew.')
  }
  if (input.seenOn > today) throw refusal('seenOn', 'day.future', { today: { day: today } })
  if (input.said === '' && input.note === '' && !photo) throw fieldProblem('said', 'say what you found, or add a photo')
  const clean = photo && cleanJpeg(Buffer.from(photo.jpeg, 'base64'))
  if (clean && 'refused' in clean) throw fieldProblem('photo.jpeg', clean.refused)
  await requireRoom(tx, link)
  await tx.query(
    `INSERT INTO public_find (id, site_id, find_link_id, said, note, seen_on, latitude, longitude, accuracy_m, created_at)
     VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, UTC_TIMESTAMP())`,
    [
      id,
      link['site_id'],
      link['id'],
      input.said,
      input.note,
      input.seenOn,
      position?.latitude ?? null,
      position?.longitude ?? null,
      position?.accuracyM ?? null,
    ],
  )
  if (clean) await tx.query('INSERT INTO public_find_photo (public_find_id, jpeg) VALUES (?, ?)', [id, clean.jpeg])
  tx.touch(link['site_id'] as string, 'words')
  return { id }
}

async function requireWaiting(w: Write, id: string): Promise<PublicFind> {
  const find = await getFind(w.tx, w.siteId, id)
  if (find.state === 'flagged') throw new HttpProblem(409, 'Somebody let this find in already: it is a flag now.')
  return find
}

/** Sets a flag for a find, with its place and its photo. */
export async function flagFind(w: Write, deps: Deps, id: string, input: ParsedInputOf<typeof finds.flag>): Promise<PublicFind> {
  const { position, seenOn, said, note, hasPhoto, linkName } = await requireWaiting(w, id)
  const { organismId, placeId, plants } = input
  const pin = { organismId, placeId, position: input.withPosition ? position : null }
  const nothing = { number: null, colour: null, areaM2: null, cover: null, stage: null, height: null, methodId: null, dueOn: null }
  const photo = hasPhoto ? { jpeg: (await findPhoto(w.tx, w.siteId, id)).toString('base64'), takenOn: seenOn, position: null } : null
  const words = [linkName, said, note].filter(Boolean).join(': ')
  const seen = { seenOn, sight: 'standing' as const, plants, taken: null, minutes: null, photo, note: words }
  const flag = await addFlag(w, deps, { ...nothing, ...seen, ...pin, made: null })
  await updateRow(w, 'public_find', id, input.rowVersion, { state: 'flagged', flag_id: flag.id })
  return getFind(w.tx, w.siteId, id)
}

/** Puts a find away, or takes it back. */
export async function refuseFind(w: Write, id: string, { refused, rowVersion }: ParsedInputOf<typeof finds.refuse>): Promise<PublicFind> {
  await requireWaiting(w, id)
  await updateRow(w, 'public_find', id, rowVersion, { state: refused ? 'refused' : 'waits' })
  return getFind(w.tx, w.siteId, id)
}
