import { endpoints } from '@bocado/contract'
import type { Router } from 'express'
import { toString as codeOf } from 'qrcode'
import { mailLink } from '../accounts/linkMail.js'
import { offerPhone } from '../accounts/phones.js'
import { canMail } from '../alerts/mail.js'
import { read, write, type Serving } from '../http/route.js'
import { addressesOf, trustAddressOf, type WayIn } from './settings.js'
import { fingerprintOf } from './trustPage.js'

/** Where it is told how a phone reaches this server. */
export function wayRoutes(router: Router, serving: Serving, way: WayIn): void {
  const [first] = addressesOf(way)
  const trust = trustAddressOf(way)
  // Its link is scanned, so it names an address that a phone reaches.
  write(router, serving, endpoints.phones.offer, (ctx) => offerPhone(ctx, ctx.input.name, first), { secret: true })
  // A letter names an address that is reached from elsewhere, where there is one.
  const origin = first ?? `http://localhost:${way.port}`
  write(router, serving, endpoints.crew.mailLink, (ctx) => mailLink(ctx, ctx.input, origin), { secret: true })
  let code: Promise<string> | undefined
  read(router, serving, endpoints.account.wayIn, async () => ({
    addresses: addressesOf(way),
    mails: canMail(),
    trust,
    fingerprint: trust && way.tls ? fingerprintOf(way.tls.authority) : null,
    code: first ? await (code ??= codeOf(trust ?? first, { type: 'svg', margin: 1 })) : null,
  }))
}
