import { ALL_SITES, aspects, type Aspect, type AspectVersions } from '@bocado/contract'
import type { Row } from './pool.js'
import type { Changed, Session, Touched } from './session.js'

/** What a site's forecasts are derived from: when one of these changes, they are made anew. */
const DERIVED_FROM: readonly Aspect[] = ['site', 'stations', 'weather', 'watches', 'blooms', 'counts', 'treatments', 'library', 'day']

/**
 * One number that rises whenever anything changes that a site's forecasts are derived from.
 *
 * @param versions of the aspects of one site
 */
export const inputsVersion = (versions: AspectVersions): number => DERIVED_FROM.reduce((sum, aspect) => sum + (versions[aspect] ?? 0), 0)

/**
 * Raises the versions of what a write has touched, and asks for what follows from it to be made anew. It is the last thing that a write
 * does: nobody waits for these rows longer than it takes to commit. Sites come in the order of their ids, so that two writes never wait for
 * each other.
 *
 * @param soonMs how soon what is derived from it shall be made anew
 */
export async function raiseVersions(tx: Session, touched: Touched, soonMs: number): Promise<Changed> {
  const rows = [...touched]
    .sort(([a], [b]) => a.localeCompare(b))
    .flatMap(([siteId, of]) => aspects.filter((aspect) => of.has(aspect)).map((aspect) => [siteId, aspect]))
  if (rows.length === 0) return {}
  await tx.query('INSERT INTO site_version (site_id, aspect) VALUES ? ON DUPLICATE KEY UPDATE version = version + 1', [rows])
  const derived = [...touched]
    .filter(([siteId, of]) => siteId !== ALL_SITES && DERIVED_FROM.some((aspect) => of.has(aspect)))
    .map(([siteId]) => siteId)
    .sort()
  for (const siteId of derived) await askFor(tx, 'derive', siteId, soonMs)
  return versionsOf(tx, [...touched.keys()])
}

/** Work that failed so often is dead: it is shown, and done again when it is asked for anew. */
export const MOST_ATTEMPTS = 5

/** Asks for work; what is asked for and not begun is done once. What has failed before is tried again. */
export async function askFor(tx: Session, kind: string, subject: string, soonMs: number): Promise<void> {
  await tx.query(
    `INSERT INTO work (kind, subject, not_before) VALUES (?, ?, NOW(3) + INTERVAL ? MICROSECOND)
     ON DUPLICATE KEY UPDATE version = version + 1, attempts = 0, failure = NULL, not_before = LEAST(not_before, VALUES(not_before))`,
    [kind, subject, soonMs * 1000],
  )
}

/** Versions of the aspects of sites; a site of which nothing ever changed has none. */
export async function versionsOf(db: Pick<Session, 'query'>, siteIds: readonly string[]): Promise<Record<string, AspectVersions>> {
  const found: Record<string, AspectVersions> = Object.fromEntries(siteIds.map((id) => [id, {}]))
  if (siteIds.length === 0) return found
  const [rows] = await db.query<Row[]>('SELECT site_id, aspect, version FROM site_version WHERE site_id IN (?)', [siteIds])
  for (const row of rows) {
    const versions = found[row['site_id'] as string]
    if (versions) versions[row['aspect'] as Aspect] = Number(row['version'])
  }
  return found
}
