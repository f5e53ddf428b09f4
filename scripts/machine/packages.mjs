// What a fresh machine lacks: Debian's packages for the programs we start, npm's for everything else.
import { spawnSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'

export const root = fileURLToPath(new URL('../..', import.meta.url)).replace(/\/$/, '')

/** Debian package of each program; `mariadb-server-core` brings the server without starting one. */
const PROGRAMS = {
  mariadbd: { package: 'mariadb-server-core', paths: ['/usr/sbin/mariadbd', '/usr/bin/mariadbd'] },
  'mariadb-install-db': { package: 'mariadb-server-core', paths: ['/usr/bin/mariadb-install-db'] },
  // mariadb-install-db reads its options through this one.
  my_print_defaults: { package: 'mariadb-client-core', paths: ['/usr/bin/my_print_defaults'] },
  galera: { package: 'galera-4', paths: ['/usr/lib/galera/libgalera_smm.so', '/usr/lib/libgalera_smm.so'] },
  // What a node that joins is sent its state with.
  rsync: { package: 'rsync', paths: ['/usr/bin/rsync'] },
  lsof: { package: 'lsof', paths: ['/usr/bin/lsof'] },
  chromium: { package: 'chromium', paths: ['/usr/bin/chromium'] },
}

/** All that a private database needs. */
export const DATABASE_PROGRAMS = ['mariadbd', 'mariadb-install-db', 'my_print_defaults']

/** Where a program is, or undefined. */
export function find(program) {
  return PROGRAMS[program].paths.find((path) => existsSync(path))
}

export class MissingProgram extends Error {}

/** Installs the Debian packages of the programs that are missing; says what to do where it may not. */
export function ensurePrograms(programs, say) {
  const missing = programs.filter((program) => !find(program))
  if (missing.length === 0) return
  const packages = [...new Set(missing.map((program) => PROGRAMS[program].package))]
  const command = `apt-get install ${packages.join(' ')}`
  if (process.getuid?.() !== 0)
    throw new MissingProgram(`${missing.join(', ')} not found. Run this once as root, then start again: ${command}`)
  say(`Installing ${packages.join(', ')}`)
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' }
  const apt = (...args) => spawnSync('apt-get', ['-qq', '-y', '-o', 'DPkg::Lock::Timeout=300', ...args], { env, encoding: 'utf8' })
  apt('update')
  const done = apt('install', '--no-install-recommends', ...packages)
  const still = missing.filter((program) => !find(program))
  if (still.length > 0) throw new MissingProgram(`${command} did not bring ${still.join(', ')}:\n${done.stderr ?? done.error ?? ''}`)
}

/** Runs `npm ci` unless node_modules already holds what the lockfile says. */
export function ensureNodeModules(say) {
  const lock = createHash('sha256')
    .update(readFileSync(join(root, 'package-lock.json')))
    .digest('hex')
  const stamp = join(root, 'node_modules', '.bocado-lockfile')
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === lock) return
  say('Installing npm packages by the lockfile')
  const done = spawnSync('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], {
    cwd: root,
    stdio: ['ignore', 'ignore', 'inherit'],
  })
  if (done.status !== 0) throw new Error('npm ci failed; its message stands above')
  mkdirSync(dirname(stamp), { recursive: true })
  writeFileSync(stamp, lock)
}
