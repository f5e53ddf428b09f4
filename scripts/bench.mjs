// npm run bench: how fast the computation and the server are, against plain loops in the same run.
import { mkdirSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { runnerImport } from 'vite'
import { build } from './build.mjs'
import { startMariadb } from './machine/mariadb.mjs'
import { DATABASE_PROGRAMS, ensureNodeModules, ensurePrograms, root } from './machine/packages.mjs'

ensureNodeModules(console.log)
const computation = (await runnerImport(join(root, 'bench/heat.ts'))).module
console.log(computation.report().join('\n'))

const external = process.env.BOCADO_DATABASE_URL
ensurePrograms([...(external ? [] : DATABASE_PROGRAMS), 'chromium'], console.log)
build(() => undefined)
const dir = join(root, '.data', `bench-${process.pid}`)
mkdirSync(dir, { recursive: true })
const database = external ? undefined : await startMariadb(dir, { port: 33_260 })
try {
  const server = (await runnerImport(join(root, 'bench/server.ts'))).module
  console.log((await server.report(external ?? database.url)).join('\n'))
  const shape = (await runnerImport(join(root, 'bench/shape.ts'))).module
  console.log((await shape.report(external ?? database.url)).join('\n'))
  const browser = (await runnerImport(join(root, 'bench/browser.ts'))).module
  console.log((await browser.report(external ?? database.url)).join('\n'))
} finally {
  await database?.stop()
  rmSync(dir, { recursive: true, force: true })
}
process.exit(0)
