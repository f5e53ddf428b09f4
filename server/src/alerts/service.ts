import type { AlertSettings, ParsedInputOf, alerts } from '@bocado/contract'
import {
  alertsOf,
  civilDate,
  hoursUntilDigest,
  hoursUntilLoud,
  isoInstant,
  MS_PER_HOUR,
  MS_PER_MINUTE,
  type Alert as Told,
} from '@bocado/core'
import { randomUUID } from 'node:crypto'
import { hashOf, newToken } from '../accounts/tokens.js'
import { zoneOffsetMinutes } from '../clock.js'
import { jsonOf, sqlInstant, type Queryable, type Row, type Transaction, type Write } from '../database/index.js'
import type { Deps } from '../http/route.js'
import type { alertFacts } from './facts.js'
import { canMail } from './mail.js'
import { devicesOf } from './push.js'
import { findSettings, insertAlert, keepSettings, listAlerts, noteOfSettings, toldElsewhere, type KeptSettings } from './store.js'

/** Days and moments as the contract writes them. */
function saidOf({ says }: Told): Record<string, string | number> {
  const days: ReadonlySet<string> = new Set(['opens', 'best', 'closes', 'day', 'late'])
  return Object.fromEntries(
    Object.entries(says).map(([name, value]) => {
      if (typeof value !== 'number') return [name, value]
      if (days.has(name)) return [name, civilDate(value)]
      return [name, name === 'since' ? isoInstant(value) : value]
    }),
  )
}

/**
 * Keeps of what is worth telling what was not told before, and puts it in the outbox of whoever wants mail.
 *
 * @returns how much is new
 */
export async function keepTold(tx: Transaction, { site, facts }: Awaited<ReturnType<typeof alertFacts>>): Promise<number> {
  const now = new Date(facts.now)
  const watches = new Set(facts.watches.map(({ id }) => id))
  const fresh: { id: string; told: Told }[] = []
  for (const one of alertsOf(facts)) {
    const watchId = one.key.split(' ')[1] ?? ''
    const row = {
      key: one.key,
      kind: one.kind,
      about: civilDate(one.about),
      urgent: one.urgent,
      says: saidOf(one),
      watchId: watches.has(watchId) ? watchId : null,
    }
    const id = await insertAlert(tx, site.id, row, sqlInstant(isoInstant(facts.now)))
    if (id !== undefined) fresh.push({ id, told: one })
  }
  if (fresh.length === 0) return 0
  for (const { personId, settings } of await toldElsewhere(tx, site.id))
    await putOut(tx, { siteId: site.id, personId, timeZone: site.timeZone, now }, settings, fresh)
  tx.touch(site.id, 'forecasts')
  return fresh.length
}

/** Puts what is new into somebody's outbox: at once, after their quiet hours, or with the next digest. */
async function putOut(
  tx: Transaction,
  at: { siteId: string; personId: string; timeZone: string; now: Date },
  { mail, address, push, muted, quietFrom, quietUntil, urgentAnyway, digestHour }: KeptSettings,
  fresh: readonly { id: string; told: Told }[],
): Promise<void> {
  const wanted = fresh.filter(({ told }) => !muted.includes(told.kind))
  const wall = at.now.getTime() + zoneOffsetMinutes(at.now, at.timeZone) * MS_PER_MINUTE
  const hour = (wall / MS_PER_HOUR) % 24
  const quiet = quietFrom === null || quietUntil === null ? null : { from: quietFrom, until: quietUntil }
  const inHours = (hours: number): string => sqlInstant(isoInstant(at.now.getTime() + hours * MS_PER_HOUR))
  const put = async (ids: readonly string[], hours: number, digest: boolean, channel: 'mail' | 'push' = 'mail'): Promise<void> => {
    if (ids.length === 0) return
    const [[open]] = await tx.query<Row[]>(
      'SELECT id, alerts FROM outbox WHERE site_id = ? AND person_id = ? AND digest = ? AND channel = ? AND sent_at IS NULL AND not_before > ? ORDER BY not_before LIMIT 1 FOR UPDATE',
      [at.siteId, at.personId, digest, channel, sqlInstant(isoInstant(at.now.getTime()))],
    )
    // What waits already takes the rest with it: one letter, not five.
    if (open && hours > 0) {
      await tx.query('UPDATE outbox SET alerts = ? WHERE id = ?', [
        JSON.stringify([...jsonOf<string[]>(open['alerts']), ...ids]),
        open['id'],
      ])
      return
    }
    await tx.query('INSERT INTO outbox (id, site_id, person_id, digest, channel, alerts, not_before) VALUES (?, ?, ?, ?, ?, ?, ?)', [
      randomUUID(),
      at.siteId,
      at.personId,
      digest,
      channel,
      JSON.stringify(ids),
      inHours(hours),
    ])
  }
  const ids = (of: typeof wanted): string[] => of.map(({ id }) => id)
  const urgent = wanted.filter(({ told }) => urgentAnyway && told.urgent)
  const rest = wanted.filter((one) => !urgent.includes(one))
  if (push !== 'none') {
    const pushed = push === 'all' ? wanted : wanted.filter(({ told }) => told.urgent)
    await put(ids(pushed.filter((one) => urgent.includes(one))), 0, false, 'push')
    await put(ids(pushed.filter((one) => !urgent.includes(one))), hoursUntilLoud(hour, quiet), false, 'push')
  }
  if (mail === 'none' || address === '') return
  await put(ids(urgent), 0, false)
  if (mail === 'digest') await put(ids(rest), hoursUntilDigest(hour, digestHour), true)
  else await put(ids(rest), hoursUntilLoud(hour, quiet), false)
}

export const settingsOf = async (db: Queryable, siteId: string, personId: string): Promise<AlertSettings> => ({
  ...(await findSettings(db, siteId, personId)),
  canMail: canMail(),
  devices: await devicesOf(db, personId),
})

export async function setSettings(w: Write, input: ParsedInputOf<typeof alerts.set>): Promise<AlertSettings> {
  await keepSettings(w.tx, w.siteId, w.personId, input)
  // What waits goes by what is wanted now; nobody gets what they no longer want.
  for (const [channel, isWanted] of [
    ['mail', input.mail !== 'none'],
    ['push', input.push !== 'none'],
  ] as const)
    if (!isWanted)
      await w.tx.query('DELETE FROM outbox WHERE site_id = ? AND person_id = ? AND channel = ? AND sent_at IS NULL', [
        w.siteId,
        w.personId,
        channel,
      ])
  return settingsOf(w.tx, w.siteId, w.personId)
}

export async function seeAll(w: Write, deps: Deps) {
  const now = sqlInstant(isoInstant((await deps.clock.now(w.tx)).getTime()))
  await noteOfSettings(w.tx, w.siteId, w.personId, { seen_at: now })
  return listAlerts(w.tx, w.siteId, w.personId, now)
}

/** Makes the link of somebody's calendar, in place of the one before. Its secret is told this once. */
export async function makeCalendar(w: Write): Promise<AlertSettings & { token: string }> {
  const token = newToken()
  const since = sqlInstant(isoInstant(Date.now()))
  await endingBefore(w, { calendar_hash: hashOf(token), calendar_since: since })
  return { ...(await settingsOf(w.tx, w.siteId, w.personId)), token }
}

export async function endCalendar(w: Write): Promise<AlertSettings> {
  await endingBefore(w, { calendar_hash: null, calendar_since: null })
  return settingsOf(w.tx, w.siteId, w.personId)
}

async function endingBefore(w: Write, columns: { calendar_hash: Buffer | null; calendar_since: string | null }): Promise<void> {
  const [[before]] = await w.tx.query<Row[]>('SELECT seen_at FROM alert_setting WHERE site_id = ? AND person_id = ? FOR UPDATE', [
    w.siteId,
    w.personId,
  ])
  await noteOfSettings(w.tx, w.siteId, w.personId, { seen_at: before?.['seen_at'] ?? null, ...columns })
}
