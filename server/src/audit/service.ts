import type { audit, AuditEntry, ParsedInputOf, ResponseOf, SiteSignIn } from '@bocado/contract'
import { instantOf, jsonOf, type Queryable, type Row } from '../database/index.js'

/** What of a row is of the database, and says nothing to people. */
const INSIDE = new Set([
  'id',
  'site_id',
  'holding_id',
  'row_version',
  'changed_by',
  'created_at',
  'deleted_at',
  'live',
  'parent_id',
  'bytes',
  'jpeg',
  'token_hash',
  'token_by',
])
const LONGEST = 200
const UUID = /^[\da-f]{8}-[\da-f]{4}-[\da-f]{4}-[\da-f]{4}-[\da-f]{12}$/
/** What names rows by which values may be told in words. */
const NAMED = ['place', 'product', 'person', 'station', 'check_area'] as const

type Values = Readonly<Record<string, unknown>>

const valuesOf = (stored: unknown): Values => {
  const value = stored === null ? {} : jsonOf(stored)
  // Several rows that were written as one, such as typed days.
  if (Array.isArray(value)) return Object.fromEntries(value.map((row: { day?: string }, i) => [row.day ?? String(i + 1), row]))
  return typeof value === 'object' && value !== null ? (value as Values) : {}
}

/** What was kept whole inside a row, such as a product as it was on its day, is told by its name. */
function nameInside(value: unknown): string | undefined {
  if (typeof value !== 'string' || !value.startsWith('{')) return undefined
  try {
    const { name } = JSON.parse(value) as { name?: unknown }
    return typeof name === 'string' ? name : undefined
  } catch {
    return undefined
  }
}

const asText = (value: unknown, names: ReadonlyMap<string, string>): string | null => {
  if (value === null || value === undefined || value === '') return null
  const inside = nameInside(value)
  if (inside !== undefined) return inside
  const text = typeof value === 'string' ? (names.get(value) ?? value) : JSON.stringify(value)
  return text.length > LONGEST ? `${text.slice(0, LONGEST)}…` : text
}

/** Names of the rows that values point to. */
async function namesOf(db: Queryable, siteId: string, all: readonly Values[]): Promise<Map<string, string>> {
  const ids = [...new Set(all.flatMap((values) => Object.values(values).filter((v): v is string => typeof v === 'string' && UUID.test(v))))]
  if (ids.length === 0) return new Map()
  const found = await Promise.all(
    NAMED.map(async (table) => {
      const ofSite = table === 'person' ? 'id IN (SELECT person_id FROM site_person WHERE site_id = ?)' : '(site_id = ? OR site_id IS NULL)'
      const [rows] = await db.query<Row[]>(`SELECT id, name FROM ${table} WHERE id IN (?) AND ${ofSite}`, [ids, siteId])
      return rows
    }),
  )
  return new Map(found.flat().map((row) => [row['id'] as string, row['name'] as string]))
}

function changesOf(before: Values, after: Values, names: ReadonlyMap<string, string>): AuditEntry['changes'] {
  // Of a change only what was written is kept of the row after it; of a removal all that stood there.
  const fields = Object.keys(Object.keys(after).length > 0 ? after : before).filter((field) => !INSIDE.has(field))
  return fields.flatMap((field) => {
    const [was, is] = [asText(before[field], names), asText(after[field], names)]
    return was === is ? [] : [{ field, before: was, after: is }]
  })
}

/** Who changed what at a site, the newest first. */
export async function listAudit(
  db: Queryable,
  siteId: string,
  input: ParsedInputOf<typeof audit.list>,
): Promise<ResponseOf<typeof audit.list>> {
  const { before, entityId, personId, most } = input
  const conditions: [string, unknown][] = [
    ...(before === undefined ? [] : [['a.id < ?', before] as [string, unknown]]),
    ...(entityId === undefined ? [] : [['a.entity_id = ?', entityId] as [string, unknown]]),
    ...(personId === undefined ? [] : [['a.person_id = ?', personId] as [string, unknown]]),
  ]
  const [rows] = await db.query<Row[]>(
    `SELECT a.*, p.name AS person FROM audit a JOIN person p ON p.id = a.person_id
     WHERE a.site_id = ? ${conditions.map(([sql]) => `AND ${sql}`).join(' ')} ORDER BY a.id DESC LIMIT ?`,
    [siteId, ...conditions.map(([, value]) => value), most + 1],
  )
  const shown = rows.slice(0, most).map((row) => ({ row, was: valuesOf(row['before_row']), is: valuesOf(row['after_row']) }))
  const names = await namesOf(
    db,
    siteId,
    shown.flatMap(({ row, was, is }) => [was, is, { id: row['entity_id'] }]),
  )
  return {
    isMore: rows.length > most,
    entries: shown.map(({ row, was, is }): AuditEntry => {
      const entityId = row['entity_id'] as string
      const name = is['name'] ?? was['name'] ?? names.get(entityId) ?? null
      return {
        id: Number(row['id']),
        at: instantOf(row['at'] as string),
        by: row['person'] as string,
        action: row['action'] as AuditEntry['action'],
        entity: row['entity'] as string,
        entityId,
        name: typeof name === 'string' ? name : null,
        changes: changesOf(was, is, names),
      }
    }),
  }
}

const MOST_SIGN_INS = 200

/** Who of those who work at a site signed in: by what, on which shared phone, and until when they were seen. */
export async function listSignInsAt(db: Queryable, siteId: string): Promise<SiteSignIn[]> {
  const [rows] = await db.query<Row[]>(
    `SELECT p.name, i.how, ph.name AS phone, i.created_at, i.seen_at FROM sign_in i
     JOIN site_person sp ON sp.person_id = i.person_id AND sp.site_id = ? AND sp.left_at IS NULL
     JOIN person p ON p.id = i.person_id LEFT JOIN phone ph ON ph.id = i.phone_id
     WHERE ph.id IS NULL OR ph.site_id = sp.site_id ORDER BY i.created_at DESC, i.id LIMIT ${MOST_SIGN_INS}`,
    [siteId],
  )
  return rows.map((row) => ({
    name: row['name'] as string,
    how: row['how'] as SiteSignIn['how'],
    phone: row['phone'] as string | null,
    at: instantOf(row['created_at'] as string),
    seenAt: instantOf(row['seen_at'] as string),
  }))
}
