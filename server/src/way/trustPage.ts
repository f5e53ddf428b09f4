import { X509Certificate } from 'node:crypto'
import { createServer, type Server } from 'node:http'
import { addressesOf, type WayIn } from './settings.js'

/** By which a person tells one authority from another: compared by eye, it does not matter over what it came. */
export const fingerprintOf = (pem: string): string => new X509Certificate(pem).fingerprint256.slice(0, 47)

const page = (way: WayIn): string => {
  const address = addressesOf(way)[0] ?? ''
  return `<!doctype html>
<html lang="en"><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1">
<title>Bocado: trust this farm's server</title>
<style>body{font:17px/1.5 system-ui,sans-serif;max-width:34em;margin:2em auto;padding:0 1em;color:#16202b;background:#e9eded}
a.do{display:inline-block;padding:.7em 1.2em;background:#16202b;color:#fff;border-radius:4px;text-decoration:none}
code{overflow-wrap:anywhere}li{margin:.5em 0}</style>
<h1>Trust this farm's server</h1>
<p>Bocado runs on a machine of this farm. So that nobody reads along, your phone has to know the machine once.</p>
<p><a class="do" href="/bocado.crt">Fetch the certificate</a></p>
<p>Its fingerprint has to begin as on the owner's screen (Site, “How phones reach it”); if it differs, stop and ask:<br><code>${fingerprintOf(way.tls?.authority ?? '')}</code></p>
<ul>
<li><b>Android</b>: Settings, look for “CA certificate”, install from the downloads.</li>
<li><b>iPhone, iPad</b>: open the download, Settings, “Profile downloaded”, install; then General, About, “Certificate trust settings”, switch it on.</li>
<li><b>A computer</b>: open the file and put it among the trusted authorities, or bring it in under the browser's certificates.</li>
</ul>
<p>Then open <a href="${address}">${address}</a>, and take the certificate off again when you leave the farm.</p></html>`
}

/** Over plain HTTP, beside the server: how a phone comes to trust it, and the certificate for that. Nothing else is there. */
export function trustServer(way: WayIn): Server {
  const html = page(way)
  const security = {
    'Content-Security-Policy': "default-src 'none'; style-src 'unsafe-inline'",
    'X-Content-Type-Options': 'nosniff',
    'Cache-Control': 'no-store',
  }
  return createServer((req, res) => {
    if (req.method !== 'GET' && req.method !== 'HEAD') res.writeHead(405, security).end()
    else if (req.url === '/bocado.crt')
      res
        .writeHead(200, {
          ...security,
          'Content-Type': 'application/x-x509-ca-cert',
          'Content-Disposition': 'attachment; filename=bocado.crt',
        })
        .end(way.tls?.authority)
    else if (req.url === '/') res.writeHead(200, { ...security, 'Content-Type': 'text/html; charset=utf-8' }).end(html)
    else res.writeHead(404, security).end()
  })
}
