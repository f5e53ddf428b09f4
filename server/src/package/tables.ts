import type { Queryable, Row } from '../database/index.js'

/** A column as the database has it. */
export interface Column {
  name: string
  /** `blob` is kept as base64, everything else as the database writes it. */
  kind: 'blob' | 'number' | 'text'
  /** The database gives it its value, so that it is not taken from a package. */
  isGenerated: boolean
}

/** A table with how its rows belong to a site. */
export interface SiteTable {
  name: string
  columns: Column[]
  primaryKey: string[]
  /** Which columns name rows of which tables. */
  references: { column: string; table: string; to: string }[]
  /** Condition that picks the rows of one site, with `:site` for its id. */
  ofSite: string
}

/** Tables that no package holds, and why. A table that is neither here nor belongs to a site fails a test. */
export const LEFT_OUT: Readonly<Record<string, string>> = {
  schema_migration: 'of the database, not of a site',
  idempotency: 'answers of requests that may be sent again within days',
  demo_clock: 'of the demonstration',
  account: 'opens a server, not a site: whoever gets a package gets no way in with it',
  sign_in: 'as account',
  sign_in_attempt: 'as account',
  link: 'as account',
  phone: 'as account',
  hand_code: 'as account',
  person_setting: 'of a person on one server, not of a site',
  alert_setting: 'of a person on one server, not of a site',
  outbox: 'as alert_setting',
  demo_mail: 'of the demonstration',
  push_key: 'of the server: browsers know it by it',
  push_device: 'as alert_setting',
  passkey: 'as account',
  passkey_challenge: 'as account',
  work: 'asked for anew when a site is restored',
  site_version: 'counted anew in the database into which a site is restored',
  watch_forecast: 'derived anew',
  site_derived: 'derived anew',
}

/** Rows of people come with whatever names them. */
export const PEOPLE = 'person'

/** Rows that other sites here may have, too: what is there already stays as it is. */
export const SHARED: ReadonlySet<string> = new Set([PEOPLE, 'holding', 'product', 'machine', 'own_organism', 'own_method'])

const HOLDING_OF_SITE = '(SELECT holding_id FROM site WHERE id = :site)'

const KINDS: Readonly<Record<string, Column['kind']>> = {
  blob: 'blob',
  tinyblob: 'blob',
  mediumblob: 'blob',
  longblob: 'blob',
  binary: 'blob',
  varbinary: 'blob',
  int: 'number',
  bigint: 'number',
  smallint: 'number',
  tinyint: 'number',
  mediumint: 'number',
  double: 'number',
  float: 'number',
  decimal: 'number',
}

/**
 * The tables of the schema that hold what belongs to a site, in an order in which each comes after those it refers to. It is read from the
 * database itself, so that what a later migration adds is in the package without anybody thinking of it.
 *
 * @throws where a table belongs to no site and is not left out for a reason
 */
export async function siteTables(db: Queryable): Promise<SiteTable[]> {
  const [columns] = await db.query<Row[]>(
    `SELECT c.table_name AS t, c.column_name AS name, c.data_type AS type, c.column_key AS k, c.generation_expression AS generated,
       c.extra AS extra
     FROM information_schema.columns c JOIN information_schema.tables t ON t.table_schema = c.table_schema AND t.table_name = c.table_name
     WHERE c.table_schema = DATABASE() AND t.table_type = 'BASE TABLE' ORDER BY c.table_name, c.ordinal_position`,
  )
  const [keys] = await db.query<Row[]>(
    `SELECT table_name AS t, column_name AS name, referenced_table_name AS to_table, referenced_column_name AS to_column, constraint_name AS c
     FROM information_schema.key_column_usage WHERE table_schema = DATABASE() ORDER BY table_name, constraint_name, ordinal_position`,
  )
  const found = new Map<string, Omit<SiteTable, 'ofSite'>>()
  for (const row of columns) {
    const name = row['t'] as string
    if (name in LEFT_OUT) continue
    const table = found.get(name) ?? { name, columns: [], primaryKey: [], references: [] }
    table.columns.push({
      name: row['name'] as string,
      kind: KINDS[row['type'] as string] ?? 'text',
      isGenerated: Boolean(row['generated']) || String(row['extra']).includes('auto_increment'),
    })
    found.set(name, table)
  }
  for (const row of keys) {
    const table = found.get(row['t'] as string)
    if (!table) continue
    if (row['c'] === 'PRIMARY') table.primaryKey.push(row['name'] as string)
    else if (row['to_table'])
      table.references.push({ column: row['name'] as string, table: row['to_table'] as string, to: row['to_column'] as string })
  }
  const tables = [...found.values()]
  const conditionOf = (table: Omit<SiteTable, 'ofSite'>, seen: readonly string[] = []): string | undefined => {
    const has = (column: string): boolean => table.columns.some(({ name }) => name === column)
    if (table.name === 'site') return 'id = :site'
    if (table.name === 'holding') return `id = ${HOLDING_OF_SITE}`
    if (table.name === PEOPLE) return 'FALSE'
    if (has('site_id')) return has('holding_id') ? `(site_id = :site OR holding_id = ${HOLDING_OF_SITE})` : 'site_id = :site'
    for (const { column, table: parentName, to } of table.references) {
      const parent = found.get(parentName)
      if (!parent || parentName === PEOPLE || seen.includes(parentName)) continue
      const condition = conditionOf(parent, [...seen, table.name])
      if (condition) return `${column} IN (SELECT ${to} FROM ${parentName} WHERE ${condition})`
    }
    return undefined
  }
  const withSite = tables.map((table): SiteTable => {
    const ofSite = conditionOf(table)
    if (!ofSite) throw new Error(`table ${table.name} belongs to no site; say in package/tables.ts why it is left out`)
    return { ...table, ofSite }
  })
  return inOrder(withSite)
}

/** Each table after those it refers to. */
function inOrder(tables: readonly SiteTable[]): SiteTable[] {
  const ordered: SiteTable[] = []
  const place = (table: SiteTable): void => {
    if (ordered.includes(table)) return
    for (const { table: name } of table.references) {
      const parent = tables.find((t) => t.name === name)
      if (parent && parent !== table) place(parent)
    }
    if (!ordered.includes(table)) ordered.push(table)
  }
  for (const table of tables) place(table)
  return ordered
}
