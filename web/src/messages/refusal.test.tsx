// @vitest-environment happy-dom
import type { Site } from '@bocado/contract'
import { cleanup, renderHook } from '@testing-library/react'
import type { ReactNode } from 'react'
import { IntlProvider } from 'react-intl'
import { afterEach, expect, test } from 'vitest'
import { SiteProvider } from '../api/workplace.js'
import { useRefusal } from './refusal.js'

afterEach(cleanup)

const saying = (locale: string, units: Site['units']) =>
  renderHook(() => useRefusal(), {
    wrapper: ({ children }: { children: ReactNode }) => (
      <IntlProvider locale={locale}>
        <SiteProvider value={{ units } as Site}>{children}</SiteProvider>
      </IntlProvider>
    ),
  }).result.current

const left = {
  path: 'areaM2',
  message: 'english',
  code: 'area.more-than-left',
  values: { place: 'Old Apples', left: { si: 42_000, unit: 'm²' } },
}

test('a refusal says its quantities in the units of the site, and its days as the reader writes them', () => {
  expect(saying('en-US', 'us')(left)).toBe('is more than Old Apples has left: 452,084 ft²')
  expect(saying('en-GB', 'metric')(left)).toBe('is more than Old Apples has left: 42,000 m²')
  const future = { path: 'x', message: 'english', code: 'day.future', values: { today: { day: '2026-06-12' } } }
  expect(saying('en-US', 'us')(future)).toBe('lies in the future; today is Jun 12, 2026')
  expect(saying('en-GB', 'us')(future)).toBe('lies in the future; today is 12 Jun 2026')
})

test('a bound of a number is one as well; any other sentence stays as it came', () => {
  const us = saying('en-US', 'us')
  expect(us({ path: 'x', message: 'must be at most 58 °C' })).toBe('must be at most 136.4 °F')
  expect(us({ path: 'x', message: 'must be at least -25 °C difference' })).toBe('must be at least -45 °F')
  expect(us({ path: 'x', message: 'must be at most 6000 m' })).toBe('must be at most 19,685 ft')
  expect(us({ path: 'x', message: 'must be at most 90' })).toBe('must be at most 90')
  expect(us({ path: 'x', message: 'say why', code: 'unheard.of', values: {} })).toBe('say why')
})
