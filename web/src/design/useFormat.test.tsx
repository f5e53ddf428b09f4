// @vitest-environment happy-dom
import type { Site } from '@bocado/contract'
import { cleanup, render, screen } from '@testing-library/react'
import { IntlProvider } from 'react-intl'
import { afterEach, describe, expect, test, vi } from 'vitest'
import { SiteProvider } from '../api/workplace.js'
import { useFormat, type Format } from './useFormat.js'

afterEach(() => {
  cleanup()
  vi.restoreAllMocks()
})

const SITE = { units: 'metric', today: '2026-06-12', timeZone: 'America/Los_Angeles' } as Site
const made: Format[] = []
function Part({ says }: { says: (f: Format) => string }) {
  const f = useFormat()
  made.push(f)
  return <p>{says(f)}</p>
}
function Page(p: { site?: Partial<Site>; locale?: string; parts: ((f: Format) => string)[] }) {
  return (
    <IntlProvider locale={p.locale ?? 'en-GB'}>
      <SiteProvider value={{ ...SITE, ...p.site }}>
        {p.parts.map((says, i) => (
          <Part key={i} says={says} />
        ))}
      </SiteProvider>
    </IntlProvider>
  )
}

describe('formats', () => {
  test('are made once for all parts of a screen, and anew for other units or another day', () => {
    made.length = 0
    const parts = [(f: Format) => f.temperature(20), (f: Format) => f.temperature(21)]
    const { rerender } = render(<Page parts={parts} />)
    expect(new Set(made).size).toBe(1)
    expect(screen.getByText('20 °C')).toBeTruthy()
    rerender(<Page parts={parts} site={{ units: 'us' }} />)
    expect(new Set(made).size).toBe(2)
    expect(screen.getByText('68 °F')).toBeTruthy()
    rerender(<Page parts={parts} site={{ today: '2026-06-13' }} />)
    expect(new Set(made).size).toBe(3)
  })

  test('that nobody asks for are never made', () => {
    const Real = Intl.DateTimeFormat
    let count = 0
    vi.spyOn(Intl, 'DateTimeFormat').mockImplementation(function (...args: ConstructorParameters<typeof Real>) {
      count++
      return new Real(...args)
    } as never)
    render(<Page site={{ today: '2026-06-14' }} parts={[(f) => f.shortDate('2026-06-12'), (f) => f.shortDate('2026-06-13')]} />)
    expect(screen.getByText('12 Jun')).toBeTruthy()
    // One for days, and those that tell how the reader has day, month and hours.
    expect(count).toBeLessThanOrEqual(5)
  })

  test('write days in the order of the reader, and a day that nobody finished typing as missing', () => {
    const parts = [(f: Format) => f.date('2026-06-12'), (f: Format) => f.withYear('not yet')]
    render(<Page locale="en-US" parts={parts} />)
    expect(screen.getByText('Fri Jun 12')).toBeTruthy()
    expect(screen.getByText('–')).toBeTruthy()
    cleanup()
    render(<Page parts={parts.slice(0, 1)} />)
    expect(screen.getByText('Fri 12 Jun')).toBeTruthy()
  })
})
