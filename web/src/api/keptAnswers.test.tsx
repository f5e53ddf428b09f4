// @vitest-environment happy-dom
import 'fake-indexeddb/auto'
import { endpoints } from '@bocado/contract'
import { QueryClientProvider, type QueryClient } from '@tanstack/react-query'
import { cleanup, renderHook, waitFor } from '@testing-library/react'
import type { ReactNode } from 'react'
import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { browserStore, closeBrowserStore } from './browserStore.js'
import { makeQueryClient, useRead } from './hooks.js'

const siteId = '7c9e6679-7425-40de-944b-e07fc1f90ae7'
const shelf = [{ name: 'Granule C' }]
let client: QueryClient
let answer: (url: string) => Promise<Response>
const json = (body: unknown) => Promise.resolve(new Response(JSON.stringify(body), { headers: { 'Content-Type': 'application/json' } }))
const nothing = () => Promise.reject(new TypeError('network'))
const wrapper = ({ children }: { children: ReactNode }) => <QueryClientProvider client={client}>{children}</QueryClientProvider>
const useShelf = () => useRead(endpoints.treatments.products, { params: { siteId }, input: {} })
const useStations = () => useRead(endpoints.weather.stations, { params: { siteId }, input: {} })
const keptOf = async (path: string) =>
  ((await (await browserStore())?.getAllKeys('answer')) ?? []).filter((key) => key.includes(JSON.stringify(path)))

beforeEach(() => {
  client = makeQueryClient()
  vi.stubGlobal('fetch', (url: string) => answer(url))
})
afterEach(async () => {
  cleanup()
  client.clear()
  await closeBrowserStore()
  indexedDB.deleteDatabase('bocado')
  vi.unstubAllGlobals()
  vi.useRealTimers()
})

/** Reads the shelf while the server answers, and closes the page. */
async function readOnce(): Promise<void> {
  answer = () => json(shelf)
  const { result, unmount } = renderHook(useShelf, { wrapper })
  await waitFor(() => expect(result.current.data).toEqual(shelf))
  await waitFor(async () => expect(await keptOf(endpoints.treatments.products.path)).toHaveLength(1))
  unmount()
  client = makeQueryClient()
}

test('what was read before is shown while no server answers, and read anew when one does', async () => {
  await readOnce()
  answer = nothing
  const { result } = renderHook(useShelf, { wrapper })
  await waitFor(() => expect(result.current.data).toEqual(shelf))
  expect(result.current.isFetching).toBe(true)
  answer = () => json([...shelf, { name: 'Bench soap' }])
  await waitFor(() => expect(result.current.data).toHaveLength(2), { timeout: 5000 })
})

test('a server that answers is never overtaken by what was kept', async () => {
  await readOnce()
  answer = () => json([])
  const { result } = renderHook(useShelf, { wrapper })
  await waitFor(() => expect(result.current.data).toBeDefined())
  expect(result.current.data).toEqual([])
})

test('what is weeks old is not shown, and let go', async () => {
  await readOnce()
  const [key] = await keptOf(endpoints.treatments.products.path)
  await (await browserStore())?.put('answer', { data: shelf, siteId, at: '2020-01-01T00:00:00.000Z' }, key!)
  answer = nothing
  const { result } = renderHook(useShelf, { wrapper })
  await waitFor(async () => expect(await keptOf(endpoints.treatments.products.path)).toEqual([]))
  expect(result.current.data).toBeUndefined()
})

test('what rests on readings alone is not kept', async () => {
  answer = (url) => json(url.includes('stations') ? [] : shelf)
  const { result } = renderHook(() => [useStations(), useShelf()], { wrapper })
  await waitFor(() => expect(result.current.every(({ data }) => data !== undefined)).toBe(true))
  await waitFor(async () => expect(await keptOf(endpoints.treatments.products.path)).toHaveLength(1))
  expect(await keptOf(endpoints.weather.stations.path)).toEqual([])
})

test('what an older page read is let go with its store, what was typed there is not', async () => {
  await new Promise<void>((resolve, reject) => {
    const opening = indexedDB.open('bocado', 2)
    opening.onupgradeneeded = () => {
      opening.result.createObjectStore('draft').put({ values: { name: 'Long Corn' }, rowVersion: null, at: '2026-06-12' }, 'a block')
      opening.result.createObjectStore('answer').put({ data: [{ name: 'without its seasons' }], siteId, at: '2026-06-12' }, 'sites')
    }
    opening.onerror = () => reject(new Error('it did not open'))
    opening.onsuccess = () => {
      opening.result.close()
      resolve()
    }
  })
  const store = (await browserStore())!
  expect(await store.getAllKeys('answer')).toEqual([])
  expect(await store.get('draft', 'a block')).toMatchObject({ values: { name: 'Long Corn' } })
})
