import { randomUUID } from 'node:crypto'
import {
  may,
  type account,
  type crew,
  type Invitation,
  type ParsedInputOf,
  type Person,
  type ResponseOf,
  type Role,
} from '@bocado/contract'
import { ALL_SITES } from '@bocado/contract'
import { auditOther, instantOf, type Queryable, type Row, type Transaction, type Write } from '../database/index.js'
import { fieldProblem, HttpProblem } from '../http/problems.js'
import type { Deps } from '../http/serving.js'
import { requireBlocks } from '../sites/service.js'
import { helpColumns, helpOf, insertPerson, joinSite } from '../sites/store.js'
import { giveAccount } from './service.js'
import type { SignedIn, Visitor } from './visitor.js'
import { endSignIns, findAccount, openSignIn, setPassword } from './store.js'
import { hashOf, newToken } from './tokens.js'

const RESET_HOURS = 24

interface StoredLink {
  id: string
  kind: 'invitation' | 'reset'
  siteId: string
  siteName: string
  personId: string | null
  name: string
  role: Role | null
  licensed: boolean
  help: Person['help']
  createdBy: string
  invitedBy: string
  expiresAt: string
}

/** A link that still gives something; held until the write is over where `hold` says so. */
export async function openLink(db: Queryable, token: string, hold = ''): Promise<StoredLink> {
  const [[row]] = await db.query<Row[]>(
    `SELECT l.*, s.name AS site_name, s.deleted_at AS site_gone, p.name AS invited_by,
       l.expires_at <= UTC_TIMESTAMP() AS is_over FROM link l
     JOIN site s ON s.id = l.site_id JOIN person p ON p.id = l.created_by WHERE l.token_hash = ? ${hold}`,
    [hashOf(token)],
  )
  if (!row || row['withdrawn_at'] || row['site_gone'])
    throw new HttpProblem(404, 'This link gives nothing: it was withdrawn, or it is not whole. Ask for a new one.')
  if (row['used_at']) throw new HttpProblem(410, 'This link was used already. Sign in, or ask for a new one.')
  if (row['is_over']) throw new HttpProblem(410, 'This link has ended. Ask for a new one.')
  return {
    id: row['id'] as string,
    kind: row['kind'] as StoredLink['kind'],
    siteId: row['site_id'] as string,
    siteName: row['site_name'] as string,
    personId: row['person_id'] as string | null,
    name: row['name'] as string,
    role: row['role'] as Role | null,
    licensed: Boolean(row['licensed']),
    help: helpOf(row),
    createdBy: row['created_by'] as string,
    invitedBy: row['invited_by'] as string,
    expiresAt: instantOf(row['expires_at'] as string),
  }
}

export async function lookAtLink(db: Queryable, token: string): Promise<ResponseOf<typeof account.lookAtLink>> {
  const link = await openLink(db, token)
  const known = link.personId === null ? undefined : await findAccount(db, { personId: link.personId })
  return {
    kind: link.kind,
    site: link.kind === 'invitation' ? link.siteName : null,
    role: link.role,
    invitedBy: link.invitedBy,
    name: link.name,
    signInName: known?.signInName ?? null,
    expiresAt: link.expiresAt,
  }
}

/** Comes in by a link. An invitation that was given by somebody who may no longer give it opens nothing. */
export async function useLink(
  { db: tx, clock }: Deps,
  visitor: Visitor,
  signedIn: string | undefined,
  { token, name, signInName }: Omit<ParsedInputOf<typeof account.useLink>, 'password'>,
  passwordHash: string | undefined,
): Promise<SignedIn> {
  const link = await openLink(tx, token, 'FOR UPDATE')
  const asSelf = link.kind === 'invitation' && link.personId === null && passwordHash === undefined ? signedIn : undefined
  if (asSelf === undefined && passwordHash === undefined) throw fieldProblem('password', 'enter a password')
  const personId = asSelf ?? link.personId ?? randomUUID()
  if (link.kind === 'reset') {
    await setPassword(tx, personId, passwordHash as string)
    await endSignIns(tx, personId)
  } else {
    await requireMayGive(tx, link)
    if (asSelf === undefined) {
      if (signInName === null) throw fieldProblem('signInName', 'enter a name to sign in with')
      if (link.personId !== null && (await findAccount(tx, { personId: link.personId })))
        throw new HttpProblem(410, 'You have an account here already. Sign in by it, or ask for a new password.')
      const { role, licensed, help } = link
      if (link.personId === null)
        await insertPerson(tx, link.siteId, { id: personId, name: name ?? link.name, role: role as Role, licensed, help })
      await giveAccount(tx, personId, signInName, passwordHash as string)
    } else await joinAs(tx, link, personId)
    const w: Write = { tx, siteId: link.siteId, personId, now: await clock.now(tx) }
    await auditOther(w, 'site_person', personId, 'create', null, { role: link.role, licensed: link.licensed, by: 'invitation' })
    tx.touch(link.siteId, 'site')
    tx.touch(ALL_SITES, 'site')
  }
  await tx.query('UPDATE link SET used_at = UTC_TIMESTAMP(), row_version = row_version + 1 WHERE id = ?', [link.id])
  return { personId, token: await openSignIn(tx, personId, 'link', visitor.agent) }
}

/** Somebody who has an account already joins a site. */
async function joinAs(tx: Transaction, link: StoredLink, personId: string): Promise<void> {
  const [[here]] = await tx.query<Row[]>('SELECT 1 AS found FROM site_person WHERE site_id = ? AND person_id = ? AND left_at IS NULL', [
    link.siteId,
    personId,
  ])
  if (here) throw new HttpProblem(409, 'You work at this site already.')
  await joinSite(tx, link.siteId, { id: personId, role: link.role as Role, licensed: link.licensed, help: link.help })
}

/** Who invited may have left, or lead no longer. */
async function requireMayGive(tx: Transaction, link: StoredLink): Promise<void> {
  const [[row]] = await tx.query<Row[]>('SELECT role FROM site_person WHERE site_id = ? AND person_id = ? AND left_at IS NULL', [
    link.siteId,
    link.createdBy,
  ])
  const right = link.role === 'owner' ? 'own' : 'lead'
  if (!row || !may(row['role'] as Role, right))
    throw new HttpProblem(410, `${link.invitedBy} no longer leads this site, so the invitation has ended. Ask who leads it now.`)
}

async function makeLink(
  w: Write,
  link: Omit<StoredLink, 'id' | 'siteId' | 'siteName' | 'createdBy' | 'invitedBy' | 'expiresAt'>,
  hours: number,
) {
  const token = newToken()
  const id = randomUUID()
  await w.tx.query(
    `INSERT INTO link (id, kind, token_hash, site_id, person_id, name, role, licensed, help_on, help_in, created_by, created_at, expires_at)
     VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, UTC_TIMESTAMP(), UTC_TIMESTAMP() + INTERVAL ? HOUR)`,
    [
      id,
      link.kind,
      hashOf(token),
      w.siteId,
      link.personId,
      link.name,
      link.role,
      link.licensed,
      ...(link.role ? helpColumns(link.role, link.help) : [null, null]),
      w.personId,
      hours,
    ],
  )
  await auditOther(w, 'link', id, 'create', null, { kind: link.kind, name: link.name, role: link.role })
  w.tx.touch(w.siteId, 'site')
  const [[row]] = await w.tx.query<Row[]>('SELECT expires_at FROM link WHERE id = ?', [id])
  return { token, expiresAt: instantOf(row!['expires_at'] as string) }
}

export async function listInvitations(db: Queryable, siteId: string): Promise<Invitation[]> {
  const [rows] = await db.query<Row[]>(
    `SELECT l.*, p.name AS invited_by, l.expires_at <= UTC_TIMESTAMP() AS is_over FROM link l JOIN person p ON p.id = l.created_by
     WHERE l.site_id = ? AND l.kind = 'invitation' AND l.used_at IS NULL AND l.withdrawn_at IS NULL
       AND l.expires_at > UTC_TIMESTAMP() - INTERVAL 30 DAY ORDER BY l.created_at DESC`,
    [siteId],
  )
  return rows.map((row) => ({
    id: row['id'] as string,
    name: row['name'] as string,
    role: row['role'] as Role,
    licensed: Boolean(row['licensed']),
    personId: row['person_id'] as string | null,
    invitedBy: row['invited_by'] as string,
    expiresAt: instantOf(row['expires_at'] as string),
    isExpired: Boolean(row['is_over']),
    rowVersion: row['row_version'] as number,
  }))
}

const roleAt = async (w: Write, personId: string): Promise<Role | undefined> => {
  const [[row]] = await w.tx.query<Row[]>('SELECT role FROM site_person WHERE site_id = ? AND person_id = ? AND left_at IS NULL', [
    w.siteId,
    personId,
  ])
  return row?.['role'] as Role | undefined
}

/** Invites somebody. Nobody gives more than they have: owners are made by owners. */
export async function invite(w: Write, input: ParsedInputOf<typeof crew.invite>): Promise<ResponseOf<typeof crew.invite>> {
  const mine = await roleAt(w, w.personId)
  let { name, role, licensed, help } = input
  if (input.personId !== null) {
    const theirs = await roleAt(w, input.personId)
    if (!theirs) throw fieldProblem('personId', 'choose somebody of this site')
    if (await findAccount(w.tx, { personId: input.personId })) throw fieldProblem('personId', 'has an account already')
    const [[row]] = await w.tx.query<Row[]>(
      'SELECT p.name, sp.licensed, sp.help_on, sp.help_in FROM person p JOIN site_person sp ON sp.person_id = p.id WHERE p.id = ? AND sp.site_id = ?',
      [input.personId, w.siteId],
    )
    // What they are was given before; the link gives them a way in and nothing else.
    name = row!['name'] as string
    licensed = Boolean(row!['licensed'])
    help = helpOf(row!)
    role = theirs
    await requireOnlyOurs(w, input.personId)
  }
  if (role === 'owner' && !(mine && may(mine, 'own'))) throw fieldProblem('role', 'only an owner makes owners')
  await requireBlocks(w.tx, w.siteId, help)
  return makeLink(w, { kind: 'invitation', personId: input.personId, name, role, licensed, help }, input.days * 24)
}

export async function withdraw(w: Write, invitationId: string, rowVersion: number): Promise<{ id: string }> {
  const [[row]] = await w.tx.query<Row[]>("SELECT * FROM link WHERE id = ? AND site_id = ? AND kind = 'invitation' FOR UPDATE", [
    invitationId,
    w.siteId,
  ])
  if (!row) throw new HttpProblem(404, 'There is no such invitation.')
  if (row['used_at']) throw new HttpProblem(409, 'This invitation was taken already. Let the person leave the site instead.')
  if (row['row_version'] !== rowVersion) throw new HttpProblem(409, 'This invitation was changed meanwhile. Look at it again.')
  await w.tx.query('UPDATE link SET withdrawn_at = UTC_TIMESTAMP(), row_version = row_version + 1 WHERE id = ?', [invitationId])
  await auditOther(w, 'link', invitationId, 'remove', null, null)
  w.tx.touch(w.siteId, 'site')
  return { id: invitationId }
}

/** Whoever gets a link for somebody could come in as them: so it is given only where all that they may do is this lead's to give. */
async function requireOnlyOurs(w: Write, personId: string): Promise<void> {
  const [rows] = await w.tx.query<Row[]>(
    `SELECT t.role AS theirs, m.role AS mine FROM site_person t JOIN site s ON s.id = t.site_id AND s.deleted_at IS NULL
     LEFT JOIN site_person m ON m.site_id = t.site_id AND m.person_id = ? AND m.left_at IS NULL
     WHERE t.person_id = ? AND t.left_at IS NULL`,
    [w.personId, personId],
  )
  for (const row of rows) {
    const mine = row['mine'] as Role | null
    if (!mine || !may(mine, row['theirs'] === 'owner' ? 'own' : 'lead'))
      throw new HttpProblem(403, 'They own this site, or work at one that you do not lead. Somebody who leads there has to do this.')
  }
}

export async function resetLink(w: Write, personId: string): Promise<ResponseOf<typeof crew.resetLink>> {
  if (!(await roleAt(w, personId))) throw new HttpProblem(404, 'There is no such person at this site.')
  const known = await findAccount(w.tx, { personId })
  if (!known) throw new HttpProblem(409, 'They have no account yet. Invite them instead.')
  await requireOnlyOurs(w, personId)
  const [[row]] = await w.tx.query<Row[]>('SELECT name FROM person WHERE id = ?', [personId])
  return makeLink(w, { kind: 'reset', personId, name: row!['name'] as string, role: null, licensed: false, help: null }, RESET_HOURS)
}
