import { readFileSync } from 'node:fs'
import { hostname, networkInterfaces } from 'node:os'
import { certificatesFor, type Certificates } from './certificates.js'

const LOOPBACK = new Set(['127.0.0.1', '::1', 'localhost'])

/** How this server is reached. */
export interface WayIn {
  listen: string
  port: number
  /** Whether others than this machine reach it. */
  isBeyond: boolean
  /** Names, beside those of this machine itself, to which it answers. */
  names: string[]
  publicOrigin: string | undefined
  /** Addresses of proxies whose word counts for where a request comes from. */
  proxies: string[]
  tls: Certificates | undefined
  /** Whether it vouches for itself, so that phones have to be told to trust it. */
  vouchesForItself: boolean
}

const listOf = (text: string | undefined): string[] => (text ?? '').split(',').flatMap((part) => part.trim().toLowerCase() || [])

/** Addresses and names by which other machines of the local network may know this one. */
export function localNames(): string[] {
  const addresses = Object.values(networkInterfaces()).flatMap((all) =>
    (all ?? []).flatMap(({ family, internal, address }) => (family === 'IPv4' && !internal ? [address] : [])),
  )
  const name = hostname().toLowerCase()
  return [...addresses, name, ...(name.includes('.') ? [] : [`${name}.local`])]
}

/**
 * The settings of the way in, from the environment: BOCADO_LISTEN and BOCADO_PORT; BOCADO_TLS_CERT and BOCADO_TLS_KEY, files of a certificate
 * that others vouch for, or BOCADO_TLS_FOLDER, in which an authority of its own is kept; BOCADO_NAMES; BOCADO_PUBLIC_ORIGIN and BOCADO_PROXY
 * behind a proxy.
 *
 * @throws where it would listen beyond this machine without TLS, or half of a certificate is named
 */
export async function wayIn(env: NodeJS.ProcessEnv, now: Date): Promise<WayIn> {
  const listen = env['BOCADO_LISTEN'] ?? '127.0.0.1'
  const isBeyond = !LOOPBACK.has(listen)
  const [certFile, keyFile, folder] = [env['BOCADO_TLS_CERT'], env['BOCADO_TLS_KEY'], env['BOCADO_TLS_FOLDER']]
  if ((certFile === undefined) !== (keyFile === undefined))
    throw new Error('BOCADO_TLS_CERT and BOCADO_TLS_KEY belong together: name both files')
  const named = listOf(env['BOCADO_NAMES'])
  const isAny = listen === '0.0.0.0' || listen === '::'
  const names = [...new Set([...named, ...(isAny ? localNames() : isBeyond ? [listen] : [])])]
  const own = certFile === undefined && folder !== undefined
  const tls =
    certFile !== undefined && keyFile !== undefined
      ? { cert: readFileSync(certFile, 'utf8'), key: readFileSync(keyFile, 'utf8'), authority: '' }
      : own
        ? await certificatesFor(folder, ['localhost', '127.0.0.1', ...names], now)
        : undefined
  if (isBeyond && !tls)
    throw new Error(
      `BOCADO_LISTEN=${listen} would let others in without TLS: what they send could be read on its way. Set BOCADO_TLS_FOLDER, or BOCADO_TLS_CERT and BOCADO_TLS_KEY`,
    )
  return {
    listen,
    port: Number(env['BOCADO_PORT'] ?? 4600),
    isBeyond,
    names,
    publicOrigin: env['BOCADO_PUBLIC_ORIGIN'],
    proxies: listOf(env['BOCADO_PROXY']),
    tls,
    vouchesForItself: own,
  }
}

/** Where a phone learns to trust this server, if it has to. */
export function trustAddressOf(way: WayIn): string | null {
  const [first] = addressesOf(way)
  return way.isBeyond && way.vouchesForItself && first ? `http://${new URL(first).hostname}:${way.port + 1}/` : null
}

/** Addresses under which the page is opened from elsewhere. */
export function addressesOf({ isBeyond, names, port, publicOrigin }: WayIn): string[] {
  if (publicOrigin !== undefined) return [publicOrigin]
  return isBeyond ? names.map((name) => `https://${name.includes(':') ? `[${name}]` : name}:${port}`) : []
}
