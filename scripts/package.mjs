// `npm run backup` and `npm run restore`: sites as packages, out of the database and into it. `npm run owner` and `npm run new-password`: for
// whoever runs the machine, where nobody in the page can help. Without BOCADO_DATABASE_URL it is that of the
// running demonstration.
import { spawnSync } from 'node:child_process'
import { existsSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { build } from './build.mjs'
import { ensureNodeModules, root } from './machine/packages.mjs'

const say = (words) => console.log(words)

function databaseOfDemo() {
  const file = join(process.env.BOCADO_DEMO_DATA ?? join(root, '.data', 'demo'), 'run.json')
  const { database } = existsSync(file) ? JSON.parse(readFileSync(file, 'utf8')) : {}
  if (!database)
    throw new Error('BOCADO_DATABASE_URL is not set and no demonstration runs: say which database, or start npm run demo first')
  return database
}

try {
  const BOCADO_DATABASE_URL = process.env.BOCADO_DATABASE_URL ?? databaseOfDemo()
  ensureNodeModules(say)
  build(say)
  const done = spawnSync(process.execPath, [join(root, 'server/dist/package.js'), ...process.argv.slice(2)], {
    stdio: 'inherit',
    env: { ...process.env, BOCADO_DATABASE_URL },
  })
  process.exitCode = done.status ?? 1
} catch (error) {
  console.error(error.message)
  process.exitCode = 1
}
