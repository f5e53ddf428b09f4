import { asksForSelf, may, type Need, type Right, type Role } from '@bocado/contract'
import type { Request, Response } from 'express'
import type { Queryable, Row } from '../database/index.js'
import { noteSeen } from '../accounts/seen.js'
import { hashOf } from '../accounts/tokens.js'
import { HttpProblem } from './problems.js'

const COOKIE = 'bocado'
/** Bound to this host and to TLS; the browser keeps nobody else's under this name. */
const SECURE_COOKIE = '__Host-bocado'
/** What makes a phone a shared one; who works on it comes and goes. */
const PHONE = { plain: 'bocado-phone', secure: '__Host-bocado-phone' } as const
const PHONE_HOLDS_MS = 400 * 24 * 3600 * 1000
/** A sign-in that was not used for so long has ended. */
const IDLE_DAYS = 14
const HOLDS_MS = 30 * 24 * 3600 * 1000
/** A code opens a phone for the work of a day. */
const CODE_HOURS = 12

/** The secret of the sign-in that a request shows. */
export const signInOf = (req: Request): string | undefined => secretIn(req, req.secure ? SECURE_COOKIE : COOKIE)

/** The secret of the shared phone from which a request comes. */
export const phoneOf = (req: Request): string | undefined => secretIn(req, req.secure ? PHONE.secure : PHONE.plain)

function secretIn(req: Request, name: string): string | undefined {
  for (const part of (req.header('Cookie') ?? '').split(';')) {
    const [key, value] = part.trim().split('=', 2)
    if (key === name && value && /^[\w-]{43}$/.test(value)) return value
  }
  return undefined
}

/** Gives a sign-in to the browser, or takes it away: where only this server reads it, and only its own page sends it. */
export function setSignIn(req: Request, res: Response, token: string | null): void {
  const settings = { httpOnly: true, sameSite: 'lax', secure: req.secure, path: '/' } as const
  const name = req.secure ? SECURE_COOKIE : COOKIE
  if (token === null) res.clearCookie(name, settings)
  else res.cookie(name, token, { ...settings, maxAge: HOLDS_MS })
}

/** Makes a phone a shared one. */
export function setPhone(req: Request, res: Response, secret: string): void {
  const settings = { httpOnly: true, sameSite: 'lax', secure: req.secure, path: '/' } as const
  res.cookie(req.secure ? PHONE.secure : PHONE.plain, secret, { ...settings, maxAge: PHONE_HOLDS_MS })
}

/** Who calls, and what they are at the site that is named. */
export interface Caller {
  personId: string
  role: Role | undefined
  /** The site of the shared phone on which they came in by a code: there they are who they are, and nowhere else. */
  phoneSite: string | undefined
}

/** Who is signed in, with what they are at a site; undefined for nobody. One query. */
export async function callerAt(db: Queryable, token: string | undefined, siteId: string | undefined): Promise<Caller | undefined> {
  if (token === undefined) return undefined
  const hash = hashOf(token)
  const [[row]] = await db.query<Row[]>(
    `SELECT i.person_id, i.how, sp.role, ph.site_id AS phone_site FROM sign_in i
     LEFT JOIN site_person sp ON sp.person_id = i.person_id AND sp.site_id = ? AND sp.left_at IS NULL
     LEFT JOIN phone ph ON ph.id = i.phone_id AND ph.ended_at IS NULL
     WHERE i.token_hash = ? AND i.ended_at IS NULL AND i.expires_at > UTC_TIMESTAMP() AND i.seen_at > UTC_TIMESTAMP() - INTERVAL ${IDLE_DAYS} DAY
       AND (i.how <> 'code' OR (ph.id IS NOT NULL AND i.seen_at > UTC_TIMESTAMP() - INTERVAL ${CODE_HOURS} HOUR))`,
    [siteId ?? null, hash],
  )
  if (!row) return undefined
  noteSeen(hash)
  const phoneSite = row['how'] === 'code' ? (row['phone_site'] as string) : undefined
  const isElsewhere = phoneSite !== undefined && siteId !== phoneSite
  return { personId: row['person_id'] as string, role: isElsewhere ? undefined : ((row['role'] as Role | null) ?? undefined), phoneSite }
}

const MISSING: Record<Right, string> = {
  help: 'This is for who helps at this site, or records what is seen there.',
  look: 'Who helps for a day sees the work of that day. Ask who leads this site.',
  observe: 'Who may only look at this site can change nothing. Ask who leads it.',
  tend: 'This is for who scouts or leads this site. Ask who leads it.',
  treat: 'This is for who treats or leads this site. Ask who leads it.',
  lead: 'Only who leads the site may do this.',
  own: 'Only an owner of the site may do this.',
}

/**
 * Refuses whoever may not do what an operation needs. Who does not belong to a site is told that it is not there, whether it is or not.
 */
export function requireNeed(need: Need, caller: Caller | undefined, siteId: string | undefined): void {
  if (need === 'nothing' || need === 'device') return
  if (!caller) throw new HttpProblem(401, 'Sign in first.')
  if (caller.phoneSite !== undefined && asksForSelf(need) && (siteId === undefined || caller.role !== undefined))
    throw new HttpProblem(403, 'For this a code is not enough: sign in by your password or passkey.')
  if (need === 'signed-in' || need === 'self' || siteId === undefined) return
  if (caller.role === undefined) throw new HttpProblem(404, 'There is no such site.')
  if (!may(caller.role, need)) throw new HttpProblem(403, MISSING[need])
}
