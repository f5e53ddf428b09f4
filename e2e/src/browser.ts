import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Application } from '@bocado/server/testing/application'
import { chromium, type BrowserContext } from 'playwright-core'

const ARGUMENTS = [
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
  // A camera that shows a drawing, and that nobody is asked for.
  '--use-fake-device-for-media-stream',
  '--use-fake-ui-for-media-stream',
]

/** Signs somebody in past the door, as if they had come in by it before. */
export async function signIn(context: BrowserContext, app: Application, person: string): Promise<void> {
  const [name = '', value = ''] = (await app.cookieOf(person)).split('=')
  await context.addCookies([{ name, value, url: app.address, httpOnly: true, sameSite: 'Lax' }])
}

/**
 * A fresh Debian Chromium with a profile of its own, which goes with it.
 * @param keepsPage the page may keep itself on the device, and then asks for more than what is looked at
 */
export async function openBrowser(
  size = { width: 1280, height: 800 },
  keepsPage = false,
): Promise<{ context: BrowserContext; close: () => Promise<void> }> {
  const profile = mkdtempSync(join(tmpdir(), 'bocado-browser-'))
  const context = await chromium.launchPersistentContext(profile, {
    executablePath: '/usr/bin/chromium',
    headless: true,
    args: ARGUMENTS,
    viewport: size,
    reducedMotion: 'reduce',
    serviceWorkers: keepsPage ? 'allow' : 'block',
    locale: 'en-GB',
    timezoneId: 'America/Los_Angeles',
  })
  // A busy machine takes its time; what never comes fails all the same.
  context.setDefaultTimeout(40_000)
  return {
    context,
    close: async () => {
      await context.close()
      rmSync(profile, { recursive: true, force: true })
    },
  }
}
