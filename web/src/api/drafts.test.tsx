// @vitest-environment happy-dom
import 'fake-indexeddb/auto'
import { endpoints } from '@bocado/contract'
import { QueryClientProvider, QueryObserver } from '@tanstack/react-query'
import { act, cleanup, renderHook, waitFor } from '@testing-library/react'
import type { ReactNode } from 'react'
import { IntlProvider } from 'react-intl'
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest'
import { closeBrowserStore } from './browserStore.js'
import { keepDraft, readDraft } from './drafts.js'
import { makeQueryClient } from './hooks.js'
import { useEntry } from './useEntry.js'

const client = makeQueryClient()
const wrapper = ({ children }: { children: ReactNode }) => (
  <IntlProvider locale="en-GB">
    <QueryClientProvider client={client}>{children}</QueryClientProvider>
  </IntlProvider>
)
const ID = '7c9e6679-7425-40de-944b-e07fc1f90ae7'
/** As nobody is signed in here. */
const KEY = ` patch /sites/:siteId/blocks/:blockId ${ID}`
const useForm = ({ rowVersion, grows }: { rowVersion: number; grows: string }) =>
  useEntry(endpoints.blocks.update, { name: 'Row 4', kind: 'bed', areaHa: null, grows }, { rowVersion }, ID)
const shown = (rowVersion: number, grows: string) => renderHook(useForm, { wrapper, initialProps: { rowVersion, grows } })
let answer: () => Response
beforeEach(() => vi.stubGlobal('fetch', () => Promise.resolve(answer())))
afterEach(async () => {
  cleanup()
  await closeBrowserStore()
  indexedDB.deleteDatabase('bocado')
  vi.unstubAllGlobals()
})

describe('what was typed and not stored', () => {
  test('is there again when the form is opened anew, over the version that it was typed over', async () => {
    const before = shown(3, 'pear')
    await act(() => Promise.resolve(before.result.current.set({ grows: 'quince' })))
    await waitFor(async () => expect(await readDraft(KEY)).toMatchObject({ values: { grows: 'quince' }, rowVersion: 3 }))
    before.unmount()
    // Somebody else has changed the row meanwhile: to save the draft has to say so.
    const again = shown(4, 'plum')
    await waitFor(() => expect(again.result.current.values.grows).toBe('quince'))
    expect(again.result.current.draftSince).not.toBeNull()
    let sent: unknown
    answer = () => new Response(JSON.stringify({ rowVersion: 5 }), { headers: { 'Content-Type': 'application/json' } })
    await act(async () => {
      await again.result.current.submit({ siteId: ID, blockId: ID }, (v, rowVersion) => (sent = { ...v, rowVersion }))
    })
    expect(sent).toMatchObject({ grows: 'quince', rowVersion: 3 })
    await waitFor(async () => expect(await readDraft(KEY)).toBeUndefined())
  })

  test('by a page of before a field was there has that field as it begins, also where it lies within another', async () => {
    const DRAFT = ` post /sites/:siteId/treatments/done ${ID}`
    const weather = { tempC: 18, windMs: 2 }
    const covers = { sedge: '1-5' }
    await keepDraft(DRAFT, { values: { weather, covers, note: 'in the evening' }, rowVersion: null, at: new Date().toISOString() })
    const initial = { weather: { tempC: null, windMs: null, windFrom: null }, note: '', parts: ['a'], covers: { balsam: '0', sedge: '0' } }
    const { result } = renderHook(() => useEntry(endpoints.treatments.recordUnplanned, initial as never, null, ID), { wrapper })
    await waitFor(() => expect(result.current.draftSince).not.toBeNull())
    // What somebody took out of a list by name stays out.
    expect(result.current.values).toEqual({ weather: { ...weather, windFrom: null }, covers, note: 'in the evening', parts: ['a'] })
  })

  test('is none any more once it is stored, though the page is left while the rest is still read anew', async () => {
    const { result } = shown(3, 'pear')
    await act(() => Promise.resolve(result.current.set({ grows: 'quince' })))
    await waitFor(async () => expect(await readDraft(KEY)).toBeDefined())
    // Something is shown that takes its time to come anew.
    const never = () => new Promise<never>(() => undefined)
    const leave = new QueryObserver(client, { queryKey: ['slow'], queryFn: never, initialData: 1, staleTime: Infinity }).subscribe(
      () => undefined,
    )
    answer = () => new Response(JSON.stringify({ rowVersion: 4 }), { headers: { 'Content-Type': 'application/json' } })
    let isOver = false
    act(() => {
      void result.current.submit({ siteId: ID, blockId: ID }, (v, rowVersion) => ({ ...v, rowVersion })).then(() => (isOver = true))
    })
    await waitFor(async () => expect(await readDraft(KEY)).toBeUndefined())
    expect(isOver).toBe(false)
    window.dispatchEvent(new Event('pagehide'))
    await new Promise((resolve) => setTimeout(resolve, 50))
    expect(await readDraft(KEY)).toBeUndefined()
    leave()
    await waitFor(() => expect(isOver).toBe(true), { timeout: 3000 })
  })

  test('is kept where the form is left faster than the store was read', async () => {
    const { result, unmount } = shown(3, 'pear')
    act(() => result.current.set({ grows: 'quince' }))
    unmount()
    await waitFor(async () => expect(await readDraft(KEY)).toMatchObject({ values: { grows: 'quince' }, rowVersion: 3 }))
  })

  test('is let go when somebody begins anew', async () => {
    await keepDraft(KEY, { values: { grows: 'quince' }, rowVersion: 3, at: new Date().toISOString() })
    const { result } = shown(4, 'plum')
    await waitFor(() => expect(result.current.values.grows).toBe('quince'))
    act(() => result.current.discard())
    expect(result.current).toMatchObject({ draftSince: null, values: { grows: 'plum' } })
    await waitFor(async () => expect(await readDraft(KEY)).toBeUndefined())
  })

  test('is not made by looking, nor by what the page fills in itself', async () => {
    const { result } = shown(3, 'pear')
    act(() => result.current.fill({ grows: 'pear, 1988' }))
    await new Promise((resolve) => setTimeout(resolve, 500))
    expect(await readDraft(KEY)).toBeUndefined()
    expect(result.current.draftSince).toBeNull()
  })

  test('of two months ago is let go, and never comes over what was typed since', async () => {
    await keepDraft(KEY, { values: { grows: 'quince' }, rowVersion: 3, at: '2020-01-01T00:00:00Z' })
    expect(await readDraft(KEY)).toBeUndefined()
    await keepDraft(KEY, { values: { grows: 'quince' }, rowVersion: 3, at: new Date().toISOString() })
    const { result } = shown(4, 'plum')
    act(() => result.current.set({ grows: 'medlar' }))
    await new Promise((resolve) => setTimeout(resolve, 100))
    expect(result.current.values.grows).toBe('medlar')
  })
})
