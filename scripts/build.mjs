// Builds the page and the programs that run on the server, unless what is built is newer than what it is built from.
import { spawnSync } from 'node:child_process'
import { existsSync, readdirSync, statSync } from 'node:fs'
import { join } from 'node:path'
import { pathToFileURL } from 'node:url'
import { root } from './machine/packages.mjs'

function newest(path) {
  const stat = statSync(path)
  if (!stat.isDirectory()) return stat.mtimeMs
  return readdirSync(path)
    .filter((name) => name !== 'node_modules' && name !== 'dist')
    .reduce((latest, name) => Math.max(latest, newest(join(path, name))), 0)
}

const SHARED = ['core', 'library', 'contract', 'package-lock.json', 'package.json']
const BUILDS = [
  { name: 'server', from: ['server', ...SHARED], product: 'server/dist/main.js' },
  { name: 'demo', from: ['demo', 'server', ...SHARED], product: 'demo/dist/seed.js' },
  { name: 'simulators', from: ['simulators', 'demo', ...SHARED], product: 'simulators/dist/main.js' },
  { name: 'web', from: ['web', ...SHARED], product: 'web/dist/index.html' },
]

export function build(say) {
  for (const { name, from, product } of BUILDS) {
    const made = join(root, product)
    const latest = Math.max(...from.map((path) => newest(join(root, path))))
    if (existsSync(made) && statSync(made).mtimeMs > latest) continue
    say(`Building ${name}`)
    const done = spawnSync(process.execPath, [join(root, 'node_modules/vite/bin/vite.js'), 'build', '--logLevel', 'warn'], {
      cwd: join(root, name),
      stdio: ['ignore', 'inherit', 'inherit'],
      // Whatever started this may itself run for development.
      env: { ...process.env, NODE_ENV: 'production' },
    })
    if (done.status !== 0) throw new Error(`building ${name} failed; the message stands above`)
  }
}

if (import.meta.url === pathToFileURL(process.argv[1]).href) build(console.log)
