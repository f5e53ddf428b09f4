import { mkdir } from 'node:fs/promises'
import { join } from 'node:path'
import { createConnection } from 'mysql2/promise'
import type { Row } from '../database/index.js'
import { migrate } from '../database/migrate.js'
import { exportSite } from './exportSite.js'
import { PackageRefused } from './importSite.js'
import { restorePackage } from './restorePackage.js'

const USAGE = `backup [FOLDER] [SITE …]   every site, or those named by id or name, each into a zip of its own
restore FILE …             each package into the database; a site that is there already is left as it is`

/** `npm run backup` and `npm run restore`. The database is that of BOCADO_DATABASE_URL. */
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
      const [folder = 'backup', ...wanted] = rest
      await mkdir(folder, { recursive: true })
      const [sites] = await connection.query<Row[]>('SELECT id, name FROM site ORDER BY name')
      const chosen = sites.filter(({ id, name }) => wanted.length === 0 || wanted.includes(id as string) || wanted.includes(name as string))
      const unknown = wanted.find((w) => !sites.some(({ id, name }) => id === w || name === w))
      if (unknown !== undefined) throw new PackageRefused(`there is no site ${unknown}`)
      for (const { id, name } of chosen) {
        const path = join(folder, `bocado-${(name as string).replaceAll(/[^\p{L}\p{N}]+/gu, '-')}-${(id as string).slice(0, 8)}.zip`)
        const rows = await exportSite(connection, id as string, path, new Date())
        console.log(`${name}: ${Object.values(rows).reduce((a, b) => a + b, 0)} rows in ${path}`)
      }
    } else if (what === 'restore' && rest.length > 0) {
      for (const path of rest) {
        const { title, rows } = await restorePackage(url, path)
        console.log(`${title}: ${Object.values(rows).reduce((a, b) => a + b, 0)} rows from ${path}`)
      }
    } else throw new PackageRefused(USAGE)
  } finally {
    await connection.end()
  }
}

main(process.argv.slice(2)).catch((error: unknown) => {
  console.error(error instanceof Error ? error.message : error)
  process.exitCode = 1
})
