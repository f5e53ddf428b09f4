import { addRoute, cleanupOutdatedCaches, matchPrecache, precache } from 'workbox-precaching'
import { NavigationRoute, registerRoute } from 'workbox-routing'

/**
 * Keeps the page's own files on the device, so that Bocado opens without a server. What is read from the server and what is written to it
 * does not pass through here: that is the page's own affair.
 */
declare const self: {
  skipWaiting: () => Promise<void>
  clients: {
    claim: () => Promise<void>
    matchAll: (which: { type: 'window' }) => Promise<{ navigate: (url: string) => Promise<unknown>; focus: () => Promise<unknown> }[]>
    openWindow: (url: string) => Promise<unknown>
  }
  registration: ServiceWorkerRegistration
} & Pick<Window, 'addEventListener'>
/** Every file of the page, put in when it is built. */
declare const PAGE_FILES: { url: string; revision: string | null }[]

/** A server that takes longer is as good as none: the page opens, and goes on asking. */
const PATIENCE_MS = 3000
const PAGE = '/index.html'

precache(PAGE_FILES)
cleanupOutdatedCaches()
registerRoute(new NavigationRoute(async ({ request }) => openPage(request), { denylist: [/^\/api\//, /^\/healthz/, /\.\w+$/] }))
addRoute({ directoryIndex: '', cleanURLs: false })

// A newer page comes from the server at once; its files are here as soon as they are, for it and for no older one.
self.addEventListener('install', () => void self.skipWaiting())
self.addEventListener('activate', (event) =>
  (event as unknown as { waitUntil: (p: Promise<void>) => void }).waitUntil(self.clients.claim()),
)

async function openPage(request: Request): Promise<Response> {
  const kept = matchPrecache(PAGE)
  try {
    // What has begun to come is not cut off.
    const tooLate = new Promise<never>((_, reject) => setTimeout(() => reject(new Error('too late')), PATIENCE_MS))
    const answer = await Promise.race([fetch(request), tooLate])
    if (answer.status < 500) return answer
  } catch {
    // No signal, or one that is as good as none.
  }
  return (await kept) ?? Response.error()
}

interface Extended {
  waitUntil: (work: Promise<unknown>) => void
}

/** What a push says: made by the server, and read by nobody on the way. */
interface Pushed {
  title: string
  body: string
  path: string
  tag: string
}

self.addEventListener('push', (event) => {
  const { data, waitUntil } = event as unknown as { data: { json: () => Pushed } | null } & Extended
  if (!data) return
  const { title, body, path, tag } = data.json()
  waitUntil.call(event, self.registration.showNotification(title, { body, tag, data: { path } }))
})

self.addEventListener('notificationclick', (event) => {
  const { notification, waitUntil } = event as unknown as { notification: Notification } & Extended
  notification.close()
  waitUntil.call(event, openAt((notification.data as { path: string }).path))
})

/** Goes to where it is acted on: in a page that is open already, or in a new one. */
async function openAt(path: string): Promise<void> {
  const [page] = await self.clients.matchAll({ type: 'window' })
  if (!page) return void (await self.clients.openWindow(path))
  await page.navigate(path)
  await page.focus()
}
