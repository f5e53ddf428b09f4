// npm run demo: from a fresh machine to the demonstration site in a browser.
import { spawn } from 'node:child_process'
import { mkdirSync, readFileSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { setTimeout as sleep } from 'node:timers/promises'
import { build } from './build.mjs'
import { startMariadb } from './machine/mariadb.mjs'
import { DATABASE_PROGRAMS, ensureNodeModules, ensurePrograms, root } from './machine/packages.mjs'
import { freePort } from './machine/ports.mjs'
import { isAlive, runs, stop } from './machine/processes.mjs'
import { readState, takeFolder, writeState } from './machine/state.mjs'
import { keptPrograms, startProgram } from './machine/supervise.mjs'

const started = Date.now()
const say = (line) => console.log(`${((Date.now() - started) / 1000).toFixed(1).padStart(5)} s  ${line}`)
const dir = process.env.BOCADO_DEMO_DATA ?? join(root, '.data', 'demo')
const runFile = join(dir, 'run.json')

/** Ends what an earlier run that was killed left behind. */
async function clearLeftovers() {
  const left = readState(runFile)
  if (left?.simulators && runs(left.simulators, 'simulators/dist/main.js')) await stop(left.simulators)
  if (left?.server && runs(left.server, 'server/dist/main.js')) await stop(left.server)
  rmSync(runFile, { force: true })
}

/** Whether the demo at an address works, by its own word. */
async function isWell(address) {
  try {
    return (await fetch(`${address}healthz`, { signal: AbortSignal.timeout(2000) })).ok
  } catch {
    return false
  }
}

/** Says where the demo is that runs already; waits for one that is just starting. */
async function pointTo(owner) {
  for (let waited = 0; waited < 180 && isAlive(owner); waited++) {
    const address = readState(runFile)?.address
    if (address && (await isWell(address))) {
      console.log('Bocado is already running')
      console.log(address)
      return
    }
    if (waited === 0) say('Another npm run demo is starting, or brings its database back; waiting for it')
    await sleep(1000)
  }
  throw new Error('the demo that runs already does not answer; stop it (Ctrl+C where it was started) and start again')
}

function run(file, env) {
  return new Promise((resolve, reject) => {
    const child = spawn(process.execPath, [join(root, file)], { env: { ...process.env, ...env }, stdio: ['ignore', 'inherit', 'inherit'] })
    child.once('exit', (code) => (code === 0 ? resolve() : reject(new Error(`${file} ended with ${code}`))))
  })
}

async function main() {
  mkdirSync(dir, { recursive: true })
  // Two that start at the same moment would take each other's database.
  const folder = takeFolder(join(dir, 'owner'), 'demo.mjs')
  if (folder.owner) return pointTo(folder.owner)
  await clearLeftovers()

  const external = process.env.BOCADO_DATABASE_URL
  if (!external) ensurePrograms(DATABASE_PROGRAMS, say)
  ensureNodeModules(say)
  const { keep, end } = keptPrograms({
    say,
    release: () => {
      rmSync(runFile, { force: true })
      folder.release()
    },
  })
  let database
  try {
    if (!external) {
      say('Starting MariaDB on loopback')
      database = await startMariadb(dir)
      keep('MariaDB', database, () => startMariadb(dir, { port: database.port, samePort: true }))
    }
    build(say)
    const wanted = Number(process.env.BOCADO_PORT ?? 4600)
    const port = await freePort(wanted)
    if (port !== wanted) say(`Port ${wanted} is taken, using ${port}`)
    // Threads that read files and pack answers would otherwise keep an arena of memory each.
    const environment = JSON.parse(readFileSync(join(root, 'server/environment.json'), 'utf8'))
    const env = {
      BOCADO_DATABASE_URL: external ?? database.url,
      BOCADO_PORT: String(port),
      BOCADO_DEMO: 'on',
      NODE_ENV: 'production',
      ...environment,
    }
    say('Migrating and seeding the demonstration site')
    await run('demo/dist/seed.js', env)
    const address = `http://127.0.0.1:${port}/`
    const note = () =>
      writeState(runFile, {
        owner: process.pid,
        server: server.pid,
        simulators: simulators.pid,
        address,
        database: env.BOCADO_DATABASE_URL,
      })
    let server = await startProgram('server/dist/main.js', env)
    keep('The server', server, async () => {
      server = await startProgram('server/dist/main.js', env)
      note()
      return server
    })
    say('Starting the simulated stations')
    let simulators = await startProgram('simulators/dist/main.js', { BOCADO_ADDRESS: address })
    keep('The simulated stations', simulators, async () => {
      simulators = await startProgram('simulators/dist/main.js', { BOCADO_ADDRESS: address })
      note()
      return simulators
    })
    note()
    say('Ready; Ctrl+C stops it')
    console.log(address)
  } catch (error) {
    console.error(error.message)
    await end(1)
  }
}

main().catch((error) => {
  console.error(error.message)
  process.exit(1)
})
