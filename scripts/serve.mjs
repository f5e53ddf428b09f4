// npm run serve: Bocado for a farm, from one machine of it. With --network other machines of the local network reach it, over TLS.
import { mkdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { build } from './build.mjs'
import { startMariadb } from './machine/mariadb.mjs'
import { DATABASE_PROGRAMS, ensureNodeModules, ensurePrograms, root } from './machine/packages.mjs'
import { takeFolder } from './machine/state.mjs'
import { keptPrograms, startProgram } from './machine/supervise.mjs'

const started = Date.now()
const say = (line) => console.log(`${((Date.now() - started) / 1000).toFixed(1).padStart(5)} s  ${line}`)
const dir = process.env.BOCADO_DATA ?? join(root, '.data', 'farm')
const toNetwork = process.argv.includes('--network')

/** Starts the server and says how it is reached. */
const start = (env) =>
  startProgram('server/dist/main.js', env, ({ words }) => {
    for (const line of words) console.log(line)
  })

async function main() {
  mkdirSync(dir, { recursive: true, mode: 0o700 })
  const folder = takeFolder(join(dir, 'owner'), 'serve.mjs')
  if (folder.owner) throw new Error(`npm run serve runs already on ${dir}`)
  const external = process.env.BOCADO_DATABASE_URL
  if (!external) ensurePrograms(DATABASE_PROGRAMS, say)
  ensureNodeModules(say)
  const { keep, end } = keptPrograms({ say, release: () => folder.release() })
  try {
    let url = external
    if (!external) {
      say('Starting MariaDB on loopback')
      const database = await startMariadb(dir, { port: 33_160 })
      keep('MariaDB', database, () => startMariadb(dir, { port: database.port, samePort: true }))
      url = database.url
    }
    build(say)
    const environment = JSON.parse(readFileSync(join(root, 'server/environment.json'), 'utf8'))
    const env = {
      BOCADO_DATABASE_URL: url,
      BOCADO_PORT: process.env.BOCADO_PORT ?? '4643',
      BOCADO_DEMO: 'off',
      NODE_ENV: 'production',
      ...(toNetwork
        ? {
            BOCADO_LISTEN: process.env.BOCADO_LISTEN ?? '0.0.0.0',
            ...(process.env.BOCADO_TLS_CERT ? {} : { BOCADO_TLS_FOLDER: process.env.BOCADO_TLS_FOLDER ?? join(dir, 'tls') }),
          }
        : {}),
      ...environment,
    }
    keep('The server', await start(env), () => start(env))
    say('Ready; Ctrl+C stops it')
    if (!toNetwork) console.log('Only this machine reaches it. Once the first account is made, npm run serve -- --network lets phones in.')
  } catch (error) {
    console.error(error.message)
    await end(1)
  }
}

main().catch((error) => {
  console.error(error.message)
  process.exit(1)
})
