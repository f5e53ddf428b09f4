// npm run demo: from a fresh machine to the demonstration site in a browser.
import { spawn } from 'node:child_process'
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { build } from './build.mjs'
import { startMariadb } from './machine/mariadb.mjs'
import { DATABASE_PROGRAMS, ensureNodeModules, ensurePrograms, root } from './machine/packages.mjs'
import { freePort } from './machine/ports.mjs'
import { isAlive, runs, stop } from './machine/processes.mjs'

const started = Date.now()
const say = (line) => console.log(`${((Date.now() - started) / 1000).toFixed(1).padStart(5)} s  ${line}`)
const dir = join(root, '.data', 'demo')
const runFile = join(dir, 'run.json')

/** What an earlier run left: still running (then that is the demo), or killed (then its server is ended). */
async function earlierRun() {
  if (!existsSync(runFile)) return undefined
  const run = JSON.parse(readFileSync(runFile, 'utf8'))
  if (run.owner !== process.pid && runs(run.owner, 'demo.mjs')) return run
  if (run.simulators && runs(run.simulators, 'simulators/dist/main.js')) await stop(run.simulators)
  if (run.server && runs(run.server, 'server/dist/main.js')) await stop(run.server)
  return undefined
}

function run(file, env) {
  return new Promise((resolve, reject) => {
    const child = spawn(process.execPath, [join(root, file)], { env: { ...process.env, ...env }, stdio: ['ignore', 'inherit', 'inherit'] })
    child.once('exit', (code) => (code === 0 ? resolve() : reject(new Error(`${file} ended with ${code}`))))
  })
}

/** Starts a program that says when it is ready, and that ends when this one is gone. */
async function start(file, env) {
  const child = spawn(process.execPath, [join(root, file)], {
    env: { ...process.env, ...env },
    stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
  })
  await new Promise((resolve, reject) => {
    child.once('message', resolve)
    child.once('exit', (code) => reject(new Error(`${file} ended with ${code}`)))
  })
  return child
}

async function main() {
  const earlier = await earlierRun()
  if (earlier?.address) {
    console.log('Bocado is already running')
    console.log(earlier.address)
    return
  }
  if (earlier) throw new Error('another npm run demo is just starting; wait for its address')
  mkdirSync(dir, { recursive: true })
  writeFileSync(runFile, JSON.stringify({ owner: process.pid }))

  const external = process.env.BOCADO_DATABASE_URL
  if (!external) ensurePrograms(DATABASE_PROGRAMS, say)
  ensureNodeModules(say)
  let database
  let server
  let simulators
  let ending = false
  const end = async (code) => {
    if (ending) return
    ending = true
    if (simulators && isAlive(simulators.pid)) await stop(simulators.pid)
    if (server && isAlive(server.pid)) await stop(server.pid)
    await database?.stop()
    rmSync(runFile, { force: true })
    process.exit(code)
  }
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => void end(0))
  try {
    if (!external) {
      say('Starting MariaDB on loopback')
      database = await startMariadb(dir)
    }
    build(say)
    const wanted = Number(process.env.BOCADO_PORT ?? 4600)
    const port = await freePort(wanted)
    if (port !== wanted) say(`Port ${wanted} is taken, using ${port}`)
    const env = { BOCADO_DATABASE_URL: external ?? database.url, BOCADO_PORT: String(port), NODE_ENV: 'production' }
    say('Migrating and seeding the demonstration site')
    await run('demo/dist/seed.js', env)
    server = await start('server/dist/main.js', env)
    server.once('exit', (code) => void end(code ?? 1))
    const address = `http://127.0.0.1:${port}/`
    say('Starting the simulated stations')
    simulators = await start('simulators/dist/main.js', { BOCADO_ADDRESS: address })
    writeFileSync(runFile, JSON.stringify({ owner: process.pid, server: server.pid, simulators: simulators.pid, address }))
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
