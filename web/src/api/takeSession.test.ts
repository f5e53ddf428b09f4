// @vitest-environment happy-dom
import 'fake-indexeddb/auto'
import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { remember } from './takeSession.js'

const person = (id: string) => ({ id, name: id, signInName: id, byCode: false, settings: { units: null, dates: null } })
const unsubscribe = vi.fn(() => Promise.resolve(true))
const forget = vi.fn(() => Promise.resolve(true))

beforeEach(() => {
  localStorage.clear()
  unsubscribe.mockClear()
  forget.mockClear()
  const registration = { pushManager: { getSubscription: () => Promise.resolve({ unsubscribe }) } }
  vi.stubGlobal('navigator', { ...navigator, serviceWorker: { getRegistration: () => Promise.resolve(registration) } })
  vi.stubGlobal('caches', { delete: forget })
})
afterEach(() => vi.unstubAllGlobals())

test('pushes for one, and photos that were read for them, end when somebody else is signed in, or nobody', async () => {
  remember(person('marit'))
  const ended = (times: number) =>
    vi.waitFor(() => expect([unsubscribe.mock.calls.length, forget.mock.calls.length]).toEqual([times, times]))
  await ended(1)
  remember(person('dario'))
  await ended(2)
  remember(null)
  await ended(3)
})

test('they stay as long as it is the same person', async () => {
  remember(person('marit'))
  await vi.waitFor(() => expect(unsubscribe).toHaveBeenCalledTimes(1))
  remember(person('marit'))
  remember(person('marit'))
  await new Promise((resolve) => setTimeout(resolve, 20))
  expect(unsubscribe).toHaveBeenCalledTimes(1)
  expect(forget).toHaveBeenCalledTimes(1)
})
