import { toString as codeOf } from 'qrcode'
import { addressesOf, trustAddressOf, type WayIn } from './settings.js'
import { fingerprintOf } from './trustPage.js'

/** What the terminal of whoever starts a server says of how it is reached. */
export async function wordsOf(way: WayIn): Promise<string[]> {
  const scheme = way.tls ? 'https' : 'http'
  const [first, ...others] = addressesOf(way)
  if (first === undefined) return [`${scheme}://localhost:${way.port}/`]
  const trust = trustAddressOf(way)
  const code = await codeOf(trust ?? first, { type: 'terminal', small: true })
  return [
    `From elsewhere: ${[first, ...others].join('  ')}`,
    ...(trust && way.tls
      ? [`A phone learns to trust it at ${trust}, where the certificate has to begin with ${fingerprintOf(way.tls.authority)}`]
      : []),
    code,
  ]
}
