import type { LeftPerson } from '@bocado/contract'
import { auditOther, instantOf, type Queryable, type Row, type Transaction, type Write } from '../database/index.js'
import { HttpProblem } from '../http/problems.js'

/** Records of treatments with a product that somebody did or signed: who that was the law asks for. */
const KEEPING = `(d.done_by = p.id OR d.signed_by = p.id OR (d.done_by IS NULL AND d.changed_by = p.id))
  AND d.status = 'done' AND d.product_id IS NOT NULL`

const SELECT = `SELECT p.id, p.name, p.erased_at, sp.left_at, sp.row_version, (SELECT COUNT(*) FROM deed d WHERE ${KEEPING}) AS keeps
  FROM site_person sp JOIN person p ON p.id = sp.person_id WHERE sp.site_id = ? AND sp.left_at IS NOT NULL`

const leftOf = (row: Row): LeftPerson => ({
  id: row['id'] as string,
  name: row['name'] as string,
  leftAt: instantOf(row['left_at'] as string),
  isErased: row['erased_at'] !== null,
  keeps: Number(row['keeps']),
  rowVersion: row['row_version'] as number,
})

/** Who worked at a site and left, the last first. */
export async function listLeft(db: Queryable, siteId: string): Promise<LeftPerson[]> {
  const [rows] = await db.query<Row[]>(`${SELECT} ORDER BY sp.left_at DESC, p.name`, [siteId])
  return rows.map(leftOf)
}

async function leftPerson(db: Queryable, siteId: string, personId: string): Promise<LeftPerson> {
  const [[row]] = await db.query<Row[]>(`${SELECT} AND p.id = ?`, [siteId, personId])
  if (!row) throw new HttpProblem(404, 'Nobody like that left this site. Whoever works here leaves first.')
  return leftOf(row)
}

/** A name belongs to its person, not to one site: only who owns all the sites where they worked may end it, and only once they left all. */
async function requireAllOurs(w: Write, personId: string): Promise<void> {
  const [rows] = await w.tx.query<Row[]>(
    `SELECT s.name, t.left_at, m.role FROM site_person t JOIN site s ON s.id = t.site_id AND s.deleted_at IS NULL
     LEFT JOIN site_person m ON m.site_id = t.site_id AND m.person_id = ? AND m.left_at IS NULL
     WHERE t.person_id = ? ORDER BY t.site_id FOR UPDATE`,
    [w.personId, personId],
  )
  const still = rows.find((row) => row['left_at'] === null)
  if (still && still['role'] === 'owner')
    throw new HttpProblem(409, `They still work at ${still['name'] as string}. There they leave first.`)
  if (rows.some((row) => row['role'] !== 'owner'))
    throw new HttpProblem(
      403,
      'They worked at a site, too, that you do not own. Who owns it has to do this together with you: ask them first.',
    )
}

/**
 * Puts a number in place of a name, wherever it stands; their account, sign-ins, passkeys, codes and links go. Records of treatments keep the
 * name where law asks who did them. What was recorded stays as it is.
 */
export async function erasePerson(w: Write, personId: string, rowVersion: number): Promise<LeftPerson> {
  const before = await leftPerson(w.tx, w.siteId, personId)
  if (before.rowVersion !== rowVersion) throw new HttpProblem(409, 'Somebody changed this person meanwhile. Look at them again.')
  if (before.isErased) return before
  await requireAllOurs(w, personId)
  // Of two who do it at once the second sees what the first did.
  const [[now]] = await w.tx.query<Row[]>('SELECT erased_at FROM person WHERE id = ? FOR UPDATE', [personId])
  if (now?.['erased_at']) throw new HttpProblem(409, 'Somebody else took this name out just now.')
  const number = `no. ${personId.slice(0, 6)}`
  await w.tx.query('UPDATE person SET name = ?, record_name = ?, erased_at = UTC_TIMESTAMP() WHERE id = ?', [
    number,
    before.keeps > 0 ? before.name : null,
    personId,
  ])
  await forgetWaysIn(w.tx, personId, before.name)
  await forgetInAudit(w.tx, personId, before.name, number)
  await auditOther(w, 'site_person', personId, 'change', null, { name: number })
  w.tx.touch(w.siteId, 'site').touch(w.siteId, 'treatments')
  return leftPerson(w.tx, w.siteId, personId)
}

async function forgetWaysIn(tx: Transaction, personId: string, name: string): Promise<void> {
  for (const table of [
    'sign_in',
    'passkey',
    'passkey_challenge',
    'hand_code',
    'person_setting',
    'alert_setting',
    'outbox',
    'push_device',
    'account',
  ])
    await tx.query(`DELETE FROM ${table} WHERE person_id = ?`, [personId])
  await tx.query('DELETE FROM link WHERE person_id = ? OR (person_id IS NULL AND name = ? AND used_at IS NOT NULL)', [personId, name])
  await tx.query("UPDATE site_person SET licence_number = '' WHERE person_id = ?", [personId])
}

/** What was kept of a person's own rows names them; of what they changed it does not. */
async function forgetInAudit(tx: Transaction, personId: string, name: string, number: string): Promise<void> {
  for (const column of ['before_row', 'after_row'])
    await tx.query(
      `UPDATE audit SET ${column} = JSON_REPLACE(${column}, '$.name', ?)
       WHERE ${column} IS NOT NULL AND ((entity = 'site_person' AND entity_id = ?) OR (entity = 'link' AND JSON_VALUE(${column}, '$.name') = ?))`,
      [number, personId, name],
    )
}

/** Everything that is kept of one person, for themselves. */
export async function dataOf(db: Queryable, personId: string): Promise<unknown> {
  const rowsOf = async (sql: string): Promise<Row[]> => (await db.query<Row[]>(sql, [personId]))[0]
  const [[person], [account], sites, signIns, passkeys, codes, howTold, ways, records] = [
    await rowsOf('SELECT name, created_at AS since FROM person WHERE id = ?'),
    await rowsOf('SELECT sign_in_name, created_at AS since, changed_at FROM account WHERE person_id = ?'),
    await rowsOf(
      `SELECT s.name AS site, sp.role, sp.licensed, sp.licence_number, sp.licence_until, sp.left_at FROM site_person sp JOIN site s ON s.id = sp.site_id
       WHERE sp.person_id = ? ORDER BY s.name`,
    ),
    await rowsOf('SELECT how, agent, created_at AS since, seen_at, ended_at FROM sign_in WHERE person_id = ? ORDER BY created_at'),
    await rowsOf('SELECT name, created_at AS since, used_at FROM passkey WHERE person_id = ? ORDER BY created_at'),
    await rowsOf('SELECT changed_at AS since FROM hand_code WHERE person_id = ?'),
    await rowsOf('SELECT mail, address, quiet_from, quiet_until, digest_hour, calendar_since FROM alert_setting WHERE person_id = ?'),
    await rowsOf(
      `SELECT s.name AS site, w.searched_on, w.track FROM search w JOIN site s ON s.id = w.site_id
       WHERE w.changed_by = ? AND w.track IS NOT NULL ORDER BY w.searched_on, w.id`,
    ),
    await rowsOf(
      `SELECT a.at, s.name AS site, a.action, a.entity AS kind, a.entity_id AS id FROM audit a JOIN site s ON s.id = a.site_id
       WHERE a.person_id = ? ORDER BY a.id`,
    ),
  ]
  return { person, account: account ?? null, sites, signIns, passkeys, codes, howTold, waysWalked: ways, changed: records }
}
