import { createServer } from 'node:net'

function isFree(port) {
  return new Promise((resolve) => {
    const probe = createServer()
    probe.once('error', () => resolve(false))
    probe.listen(port, '127.0.0.1', () => probe.close(() => resolve(true)))
  })
}

/** The first free port on loopback, from `wanted` upwards. */
export async function freePort(wanted) {
  for (let port = wanted; port < wanted + 200; port++) if (await isFree(port)) return port
  throw new Error(`no free port from ${wanted} to ${wanted + 199}`)
}
