import type { Site } from '@bocado/contract'
import type { ReactNode } from 'react'
import { renderToStaticMarkup } from 'react-dom/server'
import { IntlProvider } from 'react-intl'
import { MemoryRouter } from 'react-router'
import { SiteProvider } from '../api/workplace.js'
import { en } from '../messages/en.js'

export const SITE = {
  id: 's',
  name: 'Hollin Bench',
  today: '2026-06-12',
  timeZone: 'America/Los_Angeles',
  units: 'metric',
  season: { start: '2026-01-01', end: '2026-12-31' },
} as Site

/** Something of the page as it is drawn, in the units of a site. */
export const markupOf = (part: ReactNode, units: Site['units'] = 'metric'): string =>
  renderToStaticMarkup(
    <IntlProvider locale="en-GB" messages={en}>
      <SiteProvider value={{ ...SITE, units }}>
        <MemoryRouter>{part}</MemoryRouter>
      </SiteProvider>
    </IntlProvider>,
  )

/** The shapes of one kind in a picture, each with its attributes; numbers as numbers. */
export function shapesOf(markup: string, kind: string): Record<string, string | number>[] {
  return [...markup.matchAll(new RegExp(`<${kind}\\b([^>]*)>`, 'g'))].map(([, attributes = '']) =>
    Object.fromEntries(
      [...attributes.matchAll(/([\w-]+)="([^"]*)"/g)].map(([, name = '', value = '']) => [
        name,
        value !== '' && Number.isFinite(Number(value)) ? Number(value) : value,
      ]),
    ),
  )
}

/** The words of a picture, in the order in which they stand in it. */
export const wordsOf = (markup: string): string[] => [...markup.matchAll(/<text\b[^>]*>([^<]*)</g)].map(([, text = '']) => text)
