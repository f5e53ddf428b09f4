// npm run cluster: three nodes of MariaDB's own cluster and two servers on loopback. Writes go through both servers at once; a node and a
// server are killed in turn; at the end it is counted what of the acknowledged is missing.
import { fork } from 'node:child_process'
import { randomUUID } from 'node:crypto'
import { mkdirSync, readFileSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { setTimeout as sleep } from 'node:timers/promises'
import { createConnection } from 'mysql2/promise'
import { build } from './build.mjs'
import { startCluster } from './machine/galera.mjs'
import { DATABASE_PROGRAMS, ensureNodeModules, ensurePrograms, root } from './machine/packages.mjs'
import { freePort } from './machine/ports.mjs'

const WRITERS = 6
const PHASE_MS = Number(process.env.BOCADO_CLUSTER_MS ?? 8000)
const environment = JSON.parse(readFileSync(join(root, 'server/environment.json'), 'utf8'))

async function startServer(url, from) {
  const port = await freePort(from)
  const child = fork(join(root, 'server/dist/main.js'), {
    env: { ...process.env, ...environment, BOCADO_DATABASE_URL: url, BOCADO_PORT: String(port), BOCADO_LOG_LEVEL: 'silent' },
  })
  await new Promise((resolve, reject) => {
    child.once('message', resolve)
    child.once('exit', (code) => reject(new Error(`a server ended with ${code}`)))
  })
  return { address: `http://127.0.0.1:${port}/api/v1`, child }
}

const end = (child, signal) =>
  new Promise((resolve) => {
    child.once('exit', resolve)
    child.kill(signal)
  })

/** Sends a write under one key until somebody acknowledges it, as pages and devices do; each try goes to the next server. */
async function write(servers, counts, first, method, path, body, cookie) {
  const key = randomUUID()
  for (let i = first; ; i++) {
    const { address } = servers[i % servers.length]
    try {
      const response = await fetch(`${address}${path}`, {
        method,
        headers: { 'Content-Type': 'application/json', 'Idempotency-Key': key, ...(cookie ? { Cookie: cookie } : {}) },
        body: JSON.stringify(body),
        signal: AbortSignal.timeout(10_000),
      })
      if (response.ok) return await response.json()
      const again = response.status === 503 || (response.status === 409 && response.headers.has('Retry-After'))
      if (!again) {
        const text = await response.text()
        counts.shown.push(`${response.status} ${text.slice(0, 200)}`)
        throw new Error(text)
      }
    } catch (error) {
      if (counts.shown.length > 0) throw error
    }
    counts.tries++
    await sleep(60 + Math.random() * 120)
  }
}

async function main() {
  ensureNodeModules(console.log)
  ensurePrograms([...DATABASE_PROGRAMS, 'galera', 'rsync', 'lsof'], console.log)
  build(console.log)
  const dir = join(root, '.data', `cluster-${process.pid}`)
  mkdirSync(dir, { recursive: true })
  const nodes = []
  const servers = []
  const counts = { tries: 0, shown: [] }
  try {
    console.log('Starting three nodes')
    nodes.push(
      ...(await startCluster(dir, async (url) => {
        // Migrations run before there is a cluster: named locks are a node's own.
        const once = await startServer(url, 4900)
        await end(once.child, 'SIGTERM')
      })),
    )
    console.log('Starting two servers, each on a node of its own')
    servers.push(await startServer(nodes[0].url, 4901), await startServer(nodes[1].url, 4911))
    const begun = await fetch(`${servers[0].address}/account`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ name: 'Marit Solheim', signInName: 'marit', password: randomUUID() }),
    })
    const person = begun.headers.getSetCookie()[0].split(';')[0]
    const site = await write(
      servers,
      counts,
      0,
      'POST',
      '/sites',
      { name: 'Hollin Bench', place: 'a river terrace', timeZone: 'America/Los_Angeles', units: 'us' },
      person,
    )
    const acknowledged = new Map()
    let running = true
    // All write to one site: the worst case, since they raise the same versions on two nodes at once.
    const writers = Array.from({ length: WRITERS }, async (_, w) => {
      for (let i = 0; running; i++) {
        const name = `Row ${w}-${i}`
        const block = await write(
          servers,
          counts,
          w,
          'POST',
          `/sites/${site.id}/blocks`,
          { name, kind: 'bed', areaHa: null, grows: '' },
          person,
        )
        acknowledged.set(block.id, name)
        if (i % 4 === 3) {
          const input = { ...block, name: `${name}, renamed` }
          const changed = await write(servers, counts, w + 1, 'PATCH', `/sites/${site.id}/blocks/${block.id}`, patchOf(input), person)
          acknowledged.set(changed.id, changed.name)
        }
      }
    })
    const phase = async (words) => {
      const before = acknowledged.size
      await sleep(PHASE_MS)
      console.log(`${words}: ${acknowledged.size - before} writes acknowledged`)
    }
    await phase('Both servers, three nodes')
    console.log('Killing a node with SIGKILL: the second server has no database any more')
    await nodes[1].kill()
    await phase('Two nodes')
    console.log('Killing that server and starting one on the third node')
    await end(servers[1].child, 'SIGKILL')
    servers[1] = await startServer(nodes[2].url, 4921)
    await phase('Two servers again, two nodes')
    console.log('Killing the first server with SIGKILL')
    await end(servers[0].child, 'SIGKILL')
    servers[0] = servers[1]
    await phase('One server')
    running = false
    await Promise.all(writers)
    let lost = 0
    let conflicts = 0
    for (const node of [nodes[0], nodes[2]]) {
      const connection = await createConnection({ uri: node.url })
      const [rows] = await connection.query('SELECT id, name FROM block WHERE site_id = ?', [site.id])
      const held = new Map(rows.map(({ id, name }) => [id, name]))
      const missing = [...acknowledged].filter(([id, name]) => held.get(id) !== name)
      const twice = rows.length - new Set(rows.map(({ name }) => name)).size
      lost += missing.length + twice
      const [status] = await connection.query("SHOW STATUS WHERE Variable_name IN ('wsrep_local_cert_failures', 'wsrep_local_bf_aborts')")
      conflicts += status.reduce((sum, row) => sum + Number(row.Value), 0)
      console.log(`${held.size} blocks on a node; of ${acknowledged.size} acknowledged ${missing.length} missing, ${twice} stored twice`)
      await connection.end()
    }
    console.log(
      `${conflicts} commit conflicts between the nodes that are left; ${counts.tries} tries without an answer; ${counts.shown.length} shown to anybody`,
    )
    if (counts.shown.length > 0) console.log(counts.shown.slice(0, 3).join('\n'))
    if (lost > 0 || counts.shown.length > 0) throw new Error(`${lost} acknowledged writes are lost or stored twice`)
    console.log('Nothing that was acknowledged is lost.')
  } finally {
    for (const { child } of servers) if (child.exitCode === null && child.signalCode === null) await end(child, 'SIGTERM')
    for (const node of nodes) await node.stop()
    rmSync(dir, { recursive: true, force: true })
  }
}

/** What a block's form sends. */
function patchOf({ name, kind, areaHa, grows, stationId, latitude, longitude, offsetMin, offsetMax, soilTexture, soilCover, rowVersion }) {
  return { name, kind, areaHa, grows, stationId, latitude, longitude, offsetMin, offsetMax, soilTexture, soilCover, rowVersion }
}

main().then(
  () => process.exit(0),
  (error) => {
    console.error(error.message)
    process.exit(1)
  },
)
