// npm test: everything that must hold, on a fresh machine too. Arguments go to vitest; with any, the checks of style are left out.
import { spawn, spawnSync } from 'node:child_process'
import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync } from 'node:fs'
import { join, relative } from 'node:path'
import { build } from './build.mjs'
import { startMariadb } from './machine/mariadb.mjs'
import { DATABASE_PROGRAMS, ensureNodeModules, ensurePrograms, root } from './machine/packages.mjs'
import { isAlive, runs, stop } from './machine/processes.mjs'

const started = Date.now()
const say = (line) => console.log(`${((Date.now() - started) / 1000).toFixed(1).padStart(6)} s  ${line}`)
const chosen = process.argv.slice(2)
const dataRoot = join(root, '.data')

function run(name, program, args, env = {}) {
  say(name)
  const done = spawnSync(program, args, { cwd: root, stdio: ['ignore', 'inherit', 'inherit'], env: { ...process.env, ...env } })
  if (done.status !== 0) throw new Error(`${name} failed`)
}
/** A check beside others: what it says is shown whole, when it ends. */
function check(name, args) {
  const began = Date.now()
  return new Promise((resolve, reject) => {
    const child = spawn(process.execPath, args, { cwd: root, stdio: ['ignore', 'pipe', 'pipe'] })
    const said = []
    for (const stream of [child.stdout, child.stderr]) stream.on('data', (part) => said.push(part))
    child.on('error', reject)
    child.on('close', (code) => {
      say(`${name}, ${((Date.now() - began) / 1000).toFixed(0)} s`)
      if (code === 0) return resolve()
      process.stdout.write(Buffer.concat(said))
      reject(new Error(`${name} failed`))
    })
  })
}

/** All of the checks, two at a time: each keeps one core busy. The first that fails ends them. */
async function checks(all) {
  const waiting = [...all]
  const next = async () => {
    for (let one = waiting.shift(); one; one = waiting.shift()) await check(...one)
  }
  await Promise.all([next(), next()])
}
const tool = (path) => join(root, 'node_modules', path)

/** Databases of runs that were killed: their servers are ended and their data taken away. */
async function clearLeftovers() {
  if (!existsSync(dataRoot)) return
  for (const name of readdirSync(dataRoot)) {
    const owner = /^test-(\d+)$/.exec(name)?.[1]
    if (!owner || (isAlive(Number(owner)) && runs(Number(owner), 'test.mjs'))) continue
    const dir = join(dataRoot, name)
    const pidFile = join(dir, 'mariadbd.pid')
    const pid = existsSync(pidFile) ? Number(readFileSync(pidFile, 'utf8')) : 0
    if (pid && runs(pid, dir)) await stop(pid)
    rmSync(dir, { recursive: true, force: true })
  }
}

/** What each run wrote of its tests; of one that was run twice the second. */
const reports = []
/** What went wrong outside of tests, of every run. */
const faultFiles = []

/** One run of vitest with a report of its own; true where all passed. */
function vitest(name, args, env) {
  const report = join(dataRoot, `test-report-${faultFiles.length}.json`)
  const faults = `${report}.faults`
  for (const old of [report, faults]) rmSync(old, { force: true })
  reports.push(report)
  faultFiles.push(faults)
  try {
    run(name, process.execPath, [tool('vitest/vitest.mjs'), 'run', `--outputFile.json=${report}`, ...args], {
      ...env,
      BOCADO_TEST_FAULTS: faults,
    })
    return true
  } catch {
    return false
  }
}

/** Minutes after which nothing is run a second time: whoever waits for it has no more. */
const NO_SECOND_AFTER_MIN = 50

/**
 * Runs of tests, told whether all passed. Where no test failed and yet something did outside of them, as when the machine stood still for a
 * minute and the runner lost its own words, it is run once more; what it was stands at the end of the log all the same.
 */
function vitestTwice(name, args, env) {
  if (vitest(name, args, env)) return true
  const report = reports.at(-1)
  const { numFailedTests, testResults } = existsSync(report)
    ? JSON.parse(readFileSync(report, 'utf8'))
    : { numFailedTests: 1, testResults: [] }
  const isInTests = numFailedTests > 0 || testResults.some(({ status }) => status === 'failed')
  if (isInTests || Date.now() - started > NO_SECOND_AFTER_MIN * 60_000) return false
  say('No test failed, but something outside of them did: once more')
  reports.pop()
  return vitest(`${name}, once more`, args, env)
}

function closingLine() {
  const made = reports.filter((report) => existsSync(report)).map((report) => JSON.parse(readFileSync(report, 'utf8')))
  if (made.length === 0) return
  const sum = (key) => made.reduce((total, report) => total + report[key], 0)
  // A log is read from its end: what failed stands there again, by name.
  for (const file of made.flatMap((report) => report.testResults)) {
    const failed = file.assertionResults.filter((test) => test.status === 'failed')
    if (file.status === 'failed' && failed.length === 0) console.log(`FAILED ${relative(root, file.name)}: ${file.message}`)
    for (const test of failed)
      console.log(`FAILED ${relative(root, file.name)}: ${test.fullName}\n${test.failureMessages.join('\n').slice(0, 1500)}`)
  }
  for (const faults of faultFiles.filter((file) => existsSync(file)))
    for (const fault of JSON.parse(readFileSync(faults, 'utf8'))) console.log(`FAILED ${fault}`)
  console.log(`${sum('numPassedTests')} passed, ${sum('numFailedTests')} failed`)
}

/** Workspaces whose style is looked at by a process of their own. */
const STYLED_APART = [['web'], ['server'], ['core', 'library', 'contract']]

/** Programs whose types are looked at by a process of their own. */
const TYPED = { 'the page': 'web', 'the browser tests': 'e2e', 'all that runs without a browser': 'tsconfig.node.json' }

async function main() {
  ensureNodeModules(say)
  ensurePrograms([...(process.env.BOCADO_DATABASE_URL ? [] : DATABASE_PROGRAMS), 'chromium'], say)
  if (chosen.length === 0) {
    const workspaces = ['core', 'library', 'contract', 'server', 'web', 'simulators', 'demo', 'e2e']
    await checks([
      // The quickest first: what they find is told before anybody has waited.
      ['Arrows', [tool('dependency-cruiser/bin/dependency-cruise.mjs'), '--config', '.dependency-cruiser.cjs', ...workspaces]],
      // All at once is more than one process of it can hold.
      ...STYLED_APART.map((apart) => [`Style of ${apart.join(', ')}`, [tool('eslint/bin/eslint.js'), ...apart]]),
      [
        'Style of the rest',
        [tool('eslint/bin/eslint.js'), '.', ...STYLED_APART.flat().flatMap((name) => ['--ignore-pattern', `${name}/**`])],
      ],
      // What shares its options is read once, as one program.
      ...Object.entries(TYPED).map(([name, project]) => [`Types of ${name}`, [tool('typescript/bin/tsc'), '-p', project]]),
      ['Layout', [tool('prettier/bin/prettier.cjs'), '--check', '--log-level', 'warn', '.']],
    ])
  }
  build(say)
  await clearLeftovers()
  const dir = join(dataRoot, `test-${process.pid}`)
  mkdirSync(dir, { recursive: true })
  let database
  const end = async () => {
    await database?.stop()
    rmSync(dir, { recursive: true, force: true })
  }
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => void end().then(() => process.exit(1)))
  try {
    const external = process.env.BOCADO_DATABASE_URL
    if (!external) {
      say('Starting MariaDB on loopback')
      // What a test stores outlives its programs, not the machine: nothing here is waited for on the disk.
      database = await startMariadb(dir, { port: 33_160, settings: ['--innodb-flush-log-at-trx-commit=2'] })
    }
    const env = { BOCADO_TEST_SERVER: external ?? database.url }
    // The browser needs both cores, and so do the tests that hold the server to a time: one after the other.
    const passed =
      chosen.length > 0
        ? [vitest('Tests', chosen, env)]
        : [vitestTwice('Tests', ['--project', '!e2e'], env), vitestTwice('Tests in the browser', ['--project', 'e2e'], env)]
    if (passed.includes(false)) throw new Error('some tests failed')
  } finally {
    await end()
    closingLine()
  }
}

main().catch((error) => {
  console.error(error.message)
  process.exit(1)
})
