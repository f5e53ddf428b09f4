import { mkdir } from 'node:fs/promises'
import { join } from 'node:path'
import { createConnection, type Connection } from 'mysql2/promise'
import { hashOf, newToken } from '../accounts/tokens.js'
import type { Row } from '../database/index.js'
import { migrate } from '../database/migrate.js'
import { exportSite } from './exportSite.js'
import { PackageRefused } from './importSite.js'
import { restorePackage } from './restorePackage.js'
import { rotate, stamp } from './rotation.js'

const USAGE = `backup [FOLDER] [SITE …]   every site, or those named by id or name, each into a zip of its own;
                           with --keep N each with its moment in its name, and only the last N of a site stay in the folder
restore FILE …             each package into the database; a site that is there already is left as it is
owner SITE NAME            who signs in with the name owns the site too: one that was restored, or whose owner is gone
new-password NAME          prints the end of a link with which they set a new password`

/** `npm run backup`, `npm run restore`, `npm run owner` and `npm run new-password`: what is done at the machine itself. The database is that of BOCADO_DATABASE_URL. */
async function main([what, ...rest]: string[]): Promise<void> {
  const url = process.env['BOCADO_DATABASE_URL']
  if (!url) throw new PackageRefused('BOCADO_DATABASE_URL is not set; it names the database')
  if (what === 'restore') await migrate(url, new URL('../migrations/', import.meta.url))
  const connection = await createConnection({
    uri: url,
    dateStrings: true,
    timezone: 'Z',
    charset: 'utf8mb4',
  })
  try {
    if (what === 'backup') {
      const { keep, names } = kept(rest)
      const [folder = 'backup', ...wanted] = names
      await mkdir(folder, { recursive: true })
      const [sites] = await connection.query<Row[]>('SELECT id, name FROM site ORDER BY name')
      const chosen = sites.filter(({ id, name }) => wanted.length === 0 || wanted.includes(id as string) || wanted.includes(name as string))
      const unknown = wanted.find((w) => !sites.some(({ id, name }) => id === w || name === w))
      if (unknown !== undefined) throw new PackageRefused(`there is no site ${unknown}`)
      for (const { id, name } of chosen) {
        const file = `bocado-${(name as string).replaceAll(/[^\p{L}\p{N}]+/gu, '-')}-${(id as string).slice(0, 8)}`
        const path = join(folder, keep === null ? `${file}.zip` : `${file}-${stamp(new Date())}.zip`)
        const rows = await exportSite(connection, id as string, path, new Date())
        console.log(`${name}: ${Object.values(rows).reduce((a, b) => a + b, 0)} rows in ${path}`)
        if (keep !== null) for (const gone of await rotate(folder, (id as string).slice(0, 8), keep)) console.log(`removed ${gone}`)
      }
    } else if (what === 'restore' && rest.length > 0) {
      for (const path of rest) {
        const { title, rows } = await restorePackage(url, path)
        console.log(`${title}: ${Object.values(rows).reduce((a, b) => a + b, 0)} rows from ${path}`)
      }
    } else if (what === 'owner' && rest.length === 2) {
      const [wanted = '', name = ''] = rest
      const personId = await personOf(connection, name)
      const [sites] = await connection.query<Row[]>('SELECT id, name FROM site WHERE deleted_at IS NULL AND (id = ? OR name = ?)', [
        UUID.test(wanted) ? wanted : null,
        wanted,
      ])
      const [site] = sites
      if (!site) throw new PackageRefused(`there is no site ${wanted}`)
      if (sites.length > 1) throw new PackageRefused(`several sites are called ${wanted}: name one by its id`)
      await connection.query(
        `INSERT INTO site_person (site_id, person_id, role) VALUES (?, ?, 'owner')
         ON DUPLICATE KEY UPDATE role = 'owner', left_at = NULL, row_version = row_version + 1`,
        [site['id'], personId],
      )
      console.log(`${name} owns ${site['name'] as string}`)
    } else if (what === 'new-password' && rest.length === 1) {
      const personId = await personOf(connection, rest[0] as string)
      const [[at]] = await connection.query<Row[]>('SELECT site_id FROM site_person WHERE person_id = ? LIMIT 1', [personId])
      if (!at) throw new PackageRefused('they work at no site: make them owner of one first')
      const token = newToken()
      await connection.query(
        `INSERT INTO link (id, kind, token_hash, site_id, person_id, name, created_by, created_at, expires_at)
         SELECT UUID(), 'reset', ?, ?, id, name, id, UTC_TIMESTAMP(), UTC_TIMESTAMP() + INTERVAL 1 DAY FROM person WHERE id = ?`,
        [hashOf(token), at['site_id'], personId],
      )
      console.log(`For a day, once, behind the address of this server: /come-in#${token}`)
    } else throw new PackageRefused(USAGE)
  } finally {
    await connection.end()
  }
}

/** What is asked of a backup: how many of a site are kept, and the names. */
function kept(rest: readonly string[]): { keep: number | null; names: string[] } {
  const at = rest.indexOf('--keep')
  if (at < 0) return { keep: null, names: [...rest] }
  const keep = Number(rest[at + 1])
  if (!Number.isInteger(keep) || keep < 1)
    throw new PackageRefused('--keep names how many backups of a site stay: a whole number from 1 on')
  return { keep, names: rest.filter((_, i) => i !== at && i !== at + 1) }
}

const UUID = /^[\da-f]{8}(-[\da-f]{4}){3}-[\da-f]{12}$/i

/** Who signs in with a name. */
async function personOf(connection: Connection, name: string): Promise<string> {
  const [[row]] = await connection.query<Row[]>('SELECT person_id FROM account WHERE sign_in_name = ?', [name.trim().toLowerCase()])
  if (!row) throw new PackageRefused(`nobody signs in with the name ${name}`)
  return row['person_id'] as string
}

main(process.argv.slice(2)).catch((error: unknown) => {
  console.error(error instanceof Error ? error.message : error)
  process.exitCode = 1
})
