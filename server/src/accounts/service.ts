import { randomUUID } from 'node:crypto'
import { roles, type account, type OpenSignIn, type ParsedInputOf, type Session, type Settings } from '@bocado/contract'
import type { Queryable, Row, Transaction } from '../database/index.js'
import { fieldProblem, HttpProblem } from '../http/problems.js'
import { countAttempt, forgetAttempt } from './attempts.js'
import { phoneHere } from './phones.js'
import type { SignedIn, Visitor } from './visitor.js'
import {
  endSignIns,
  findAccount,
  hasAccounts,
  insertAccount,
  listSignIns,
  openSignIn,
  peopleHere,
  setPassword,
  type Account,
} from './store.js'

/** Whether this server shows the demonstration, whose people sign in by one press. */
const isDemonstration = (): boolean => process.env['BOCADO_DEMO'] === 'on'

/** Who is signed in, and what can be done where nobody is. */
export async function sessionOf(
  db: Queryable,
  caller: { personId: string; phoneSite: string | undefined } | undefined,
  { isLocal, phone: secret }: Visitor,
): Promise<Session> {
  const isDemo = isDemonstration() && isLocal
  const demo = isDemo ? await peopleHere(db, roles) : null
  const phone = await phoneHere(db, secret)
  if (caller === undefined)
    return { person: null, phone, demo, first: isDemo || (await hasAccounts(db)) ? null : await peopleHere(db, ['owner', 'lead']) }
  const { personId, phoneSite } = caller
  const [[row]] = await db.query<Row[]>(
    `SELECT p.name, a.sign_in_name, o.units, o.dates FROM person p LEFT JOIN account a ON a.person_id = p.id
     LEFT JOIN person_setting o ON o.person_id = p.id WHERE p.id = ?`,
    [personId],
  )
  const person = {
    id: personId,
    name: row!['name'] as string,
    signInName: row!['sign_in_name'] as string | null,
    byCode: phoneSite !== undefined,
    settings: { units: row!['units'] as Settings['units'], dates: row!['dates'] as Settings['dates'] },
  }
  return { person, phone, demo, first: null }
}

const WRONG = 'The name or the password is not right.'

/** Counts a try to sign in and finds whose account is meant; its password is checked outside of any transaction. */
export async function meantAccount(tx: Transaction, visitor: Visitor, signInName: string): Promise<Account | undefined> {
  await countAttempt(tx, signInName, visitor.address)
  return findAccount(tx, { signInName })
}

/** Opens a sign-in by password. No word tells whether the name or the password was wrong. */
export async function openByPassword(tx: Transaction, visitor: Visitor, known: Account | undefined, isRight: boolean): Promise<SignedIn> {
  // A password that was changed meanwhile opens nothing.
  const isStill = known && (await findAccount(tx, { personId: known.personId }))?.passwordHash === known.passwordHash
  if (!known || !isRight || !isStill) throw new HttpProblem(403, WRONG)
  await forgetAttempt(tx, known.signInName, visitor.address)
  return { personId: known.personId, token: await openSignIn(tx, known.personId, 'password', visitor.agent) }
}

/** Signs in as somebody of the demonstration: there only, and from this machine only. */
export async function signInToDemo(tx: Transaction, visitor: Visitor, personId: string): Promise<SignedIn> {
  if (!isDemonstration() || !visitor.isLocal) throw new HttpProblem(404, 'There is nothing at this address.')
  const [[row]] = await tx.query<Row[]>('SELECT 1 AS found FROM site_person WHERE person_id = ? AND left_at IS NULL LIMIT 1', [personId])
  if (!row) throw fieldProblem('personId', 'choose somebody of the demonstration')
  return { personId, token: await openSignIn(tx, personId, 'demo', visitor.agent) }
}

/** Gives a person an account; refused where the name is taken. */
export async function giveAccount(
  tx: Transaction,
  personId: string,
  signInName: string,
  passwordHash: string,
  isFirst = false,
): Promise<void> {
  if (!(await insertAccount(tx, { personId, signInName, passwordHash }, isFirst)))
    throw fieldProblem('signInName', 'is taken; choose another')
}

/** Makes the first account of a server: of somebody new, or of who leads a site that was there before accounts were. */
export async function begin(
  tx: Transaction,
  visitor: Visitor,
  input: Omit<ParsedInputOf<typeof account.begin>, 'password'>,
  passwordHash: string,
): Promise<SignedIn> {
  if (isDemonstration() || !visitor.isLocal || (await hasAccounts(tx)))
    throw new HttpProblem(409, 'There are accounts here already. Sign in, or ask who leads the site for an invitation.')
  const first = await peopleHere(tx, ['owner', 'lead'])
  if (input.personId !== null && !first.some(({ id }) => id === input.personId))
    throw fieldProblem('personId', 'choose somebody who leads a site here')
  const personId = input.personId ?? randomUUID()
  if (input.personId === null) await tx.query('INSERT INTO person (id, name) VALUES (?, ?)', [personId, input.name])
  await giveAccount(tx, personId, input.signInName, passwordHash, true)
  return { personId, token: await openSignIn(tx, personId, 'password', visitor.agent) }
}

/** The account of who is signed in, whose password is to be changed; a try is counted. */
export async function ownAccount(tx: Transaction, visitor: Visitor, personId: string): Promise<Account> {
  const known = await findAccount(tx, { personId })
  if (!known) throw new HttpProblem(409, 'You have no account with a password here.')
  await countAttempt(tx, known.signInName, visitor.address)
  return known
}

/** Changes the password of who is signed in; every other sign-in ends, and this one gets a new secret. */
export async function changePassword(tx: Transaction, visitor: Visitor, known: Account, passwordHash: string): Promise<SignedIn> {
  await forgetAttempt(tx, known.signInName, visitor.address)
  await setPassword(tx, known.personId, passwordHash)
  await endSignIns(tx, known.personId)
  return { personId: known.personId, token: await openSignIn(tx, known.personId, 'password', visitor.agent) }
}

export const signInsOf = (db: Queryable, personId: string, token: string): Promise<OpenSignIn[]> => listSignIns(db, personId, token)

/** How somebody reads it, from now on and wherever they are signed in. */
export async function setSettings(tx: Transaction, personId: string, { units, dates }: Settings): Promise<Settings> {
  await tx.query(
    `INSERT INTO person_setting (person_id, units, dates, changed_at) VALUES (?, ?, ?, UTC_TIMESTAMP())
     ON DUPLICATE KEY UPDATE units = VALUES(units), dates = VALUES(dates), changed_at = VALUES(changed_at)`,
    [personId, units, dates],
  )
  return { units, dates }
}
