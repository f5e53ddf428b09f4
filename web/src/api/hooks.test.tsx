// @vitest-environment happy-dom
import { ALL_SITES, CHANGED_HEADER, endpoints, READ_AT_HEADER, type Problem } from '@bocado/contract'
import { QueryClientProvider, type QueryClient } from '@tanstack/react-query'
import { act, cleanup, render, renderHook, waitFor } from '@testing-library/react'
import type { ReactNode } from 'react'
import { IntlProvider } from 'react-intl'
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest'
import { useStale } from './connection.js'
import { ErrorBoundary } from './testBoundary.js'
import { makeQueryClient, useRead, useWrite } from './hooks.js'
import { useEntry } from './useEntry.js'
import { forgetVersions, noteVersions } from './versions.js'

/** What the server answers next; the last one stays. */
let answers: (Response | 'nothing')[] = []
const sent: { url: string; headers: Record<string, string>; body: string }[] = []
const json = (body: unknown, status = 200, headers: Record<string, string> = {}): Response =>
  new Response(JSON.stringify(body), { status, headers: { 'Content-Type': 'application/json', ...headers } })
const problem = (status: number, detail: string): Response =>
  json({ type: 'about:blank', title: '', status, detail } satisfies Problem, status)

let client: QueryClient
const wrapper = ({ children }: { children: ReactNode }) => (
  <IntlProvider locale="en-GB">
    <QueryClientProvider client={client}>{children}</QueryClientProvider>
  </IntlProvider>
)
beforeEach(() => {
  client = makeQueryClient()
  sent.length = 0
  vi.stubGlobal('fetch', (url: string, init: RequestInit) => {
    sent.push({ url, headers: init.headers as Record<string, string>, body: init.body as string })
    const next = answers.length > 1 ? answers.shift()! : answers[0]!
    return next === 'nothing' ? Promise.reject(new TypeError('network')) : Promise.resolve(next.clone())
  })
})
afterEach(() => {
  cleanup()
  client.clear()
  vi.unstubAllGlobals()
})

const clock = endpoints.demo.clock
const useClock = () => useRead(clock, { params: {}, input: {} })

describe('a read that fails', () => {
  test('while something is shown leaves it standing, says why, and is fresh again when it comes', async () => {
    answers = [json({ now: '2026-06-12T14:30:00Z' })]
    const { result } = renderHook(() => ({ read: useClock(), stale: useStale() }), { wrapper })
    await waitFor(() => expect(result.current.read.data).toEqual({ now: '2026-06-12T14:30:00Z' }))
    answers = [problem(422, 'no season begins on this day')]
    await act(() => client.invalidateQueries())
    await waitFor(() => expect([...result.current.stale.values()]).toEqual(['no season begins on this day']))
    expect(result.current.read.data).toEqual({ now: '2026-06-12T14:30:00Z' })
    answers = [json({ now: '2026-06-13T14:30:00Z' })]
    await act(() => client.refetchQueries())
    await waitFor(() => expect(result.current.stale.size).toBe(0))
    expect(result.current.read.data).toEqual({ now: '2026-06-13T14:30:00Z' })
  })

  test('the first time is told to whoever stands around it', async () => {
    answers = [problem(404, 'There is no such site.')]
    vi.spyOn(console, 'error').mockImplementation(() => undefined)
    const Asks = () => <p>{useClock().data?.now}</p>
    let told: unknown

    render(
      <ErrorBoundary onError={(error) => (told = error)}>
        <Asks />
      </ErrorBoundary>,
      { wrapper },
    )
    await waitFor(() => expect((told as Error | undefined)?.message).toBe('There is no such site.'))
  })
})

describe('a write', () => {
  const setClock = endpoints.demo.setClock
  test('whose first try is still being stored is sent again under its key until it is answered', async () => {
    answers = ['nothing', json({ detail: 'still being stored' }, 409, { 'Retry-After': '1' }), problem(503, 'busy'), json({ now: null })]
    const { result } = renderHook(() => useWrite(setClock), { wrapper })
    await act(() => result.current.save({ params: {}, input: { now: '2026-06-12T14:30:00Z' } }))
    expect(sent).toHaveLength(4)
    expect(new Set(sent.map(({ headers }) => headers['Idempotency-Key'])).size).toBe(1)
  })

  test('whose answer broke off on its way is sent again', async () => {
    answers = [new Response('{"now'), json({ now: null })]
    const { result } = renderHook(() => useWrite(setClock), { wrapper })
    await act(() => result.current.save({ params: {}, input: { now: '2026-06-12T14:30:00Z' } }))
    expect(sent).toHaveLength(2)
  })

  test('that somebody else was faster with is not tried again', async () => {
    answers = [problem(409, 'Somebody else changed this meanwhile.')]
    const { result } = renderHook(() => useWrite(setClock), { wrapper })
    await expect(act(() => result.current.save({ params: {}, input: { now: '2026-06-12T14:30:00Z' } }))).rejects.toThrow('Somebody else')
    expect(sent).toHaveLength(1)
  })
})

describe('a form over a row that others change', () => {
  const block = { id: '7c9e6679-7425-40de-944b-e07fc1f90ae7', rowVersion: 3 }
  const params = { siteId: '7c9e6679-7425-40de-944b-e07fc1f90ae7', blockId: block.id }
  const useForm = ({ rowVersion, grows }: { rowVersion: number; grows: string }) =>
    useEntry(endpoints.blocks.update, { name: 'Row 4', kind: 'bed', areaHa: null, grows }, { rowVersion })
  const bodyOf = (i: number): { rowVersion: number; grows: string } => JSON.parse(sent[i]!.body) as { rowVersion: number; grows: string }
  const submit = (form: ReturnType<typeof useForm>) => form.submit(params, (v, rowVersion) => ({ ...v, rowVersion }))

  test('is saved at the version that it was begun from, so that their change is told and not lost', async () => {
    answers = [
      json({ type: 'about:blank', title: '', status: 409, detail: 'Somebody else', current: { row_version: 4 } }, 409),
      json({ rowVersion: 5 }),
    ]
    const { result, rerender } = renderHook(useForm, { wrapper, initialProps: { rowVersion: 3, grows: 'pear' } })
    act(() => result.current.set({ grows: 'quince' }))
    rerender({ rowVersion: 4, grows: 'plum' })
    expect(result.current.values.grows).toBe('quince')
    await act(async () => void (await submit(result.current)))
    expect(bodyOf(0)).toMatchObject({ rowVersion: 3, grows: 'quince' })
    expect(result.current.general).toBe('Somebody else')
    // To save it again is a choice made in sight of theirs.
    await act(async () => void (await submit(result.current)))
    expect(bodyOf(1)).toMatchObject({ rowVersion: 4, grows: 'quince' })
  })

  test('follows them as long as nothing was typed', () => {
    const { result, rerender } = renderHook(useForm, { wrapper, initialProps: { rowVersion: 3, grows: 'pear' } })
    rerender({ rowVersion: 4, grows: 'plum' })
    expect(result.current.values.grows).toBe('plum')
  })

  test('can be changed and saved twice in a row', async () => {
    answers = [json({ rowVersion: 4 })]
    const { result, rerender } = renderHook(useForm, { wrapper, initialProps: { rowVersion: 3, grows: 'pear' } })
    act(() => result.current.set({ grows: 'quince' }))
    await act(async () => void (await submit(result.current)))
    rerender({ rowVersion: 4, grows: 'quince' })
    act(() => result.current.set({ grows: 'medlar' }))
    await act(async () => void (await submit(result.current)))
    expect(bodyOf(1)).toMatchObject({ rowVersion: 4, grows: 'medlar' })
  })
})

describe('what has changed', () => {
  const SITE = '7c9e6679-7425-40de-944b-e07fc1f90ae7'
  const useBlocksHere = () => useRead(endpoints.blocks.list, { params: { siteId: SITE }, input: {} })
  const useProductsHere = () => useRead(endpoints.treatments.products, { params: { siteId: SITE }, input: {} })
  beforeEach(() => forgetVersions())
  const asked = (): string[] => sent.map(({ url }) => url.split('/').at(-1)!)

  test('is read anew, and nothing else; what was known is not read again', async () => {
    answers = [json([])]
    const { result } = renderHook(() => [useBlocksHere(), useProductsHere()], { wrapper })
    await waitFor(() => expect(result.current.every(({ data }) => data)).toBe(true))
    sent.length = 0
    await act(() => noteVersions(client, SITE, { site: 4, treatments: 2 }))
    expect(sent).toHaveLength(0)
    await act(() => noteVersions(client, SITE, { treatments: 3 }))
    expect(asked()).toEqual(['products'])
    await act(() => noteVersions(client, SITE, { site: 5, treatments: 3 }))
    expect(asked()).toEqual(['products', 'blocks'])
    await act(() => noteVersions(client, SITE, { site: 5 }))
    await act(() => noteVersions(client, ALL_SITES, { site: 9 }, true))
    expect(asked()).toEqual(['products', 'blocks'])
  })

  test('while an answer was on its way, or before anything was heard of its site, is read anew, too', async () => {
    const at = (site: number, treatments: number) => ({ [READ_AT_HEADER]: JSON.stringify({ site, treatments }) })
    answers = [json([], 200, at(4, 2))]
    const { result } = renderHook(() => [useBlocksHere(), useProductsHere()], { wrapper })
    await waitFor(() => expect(result.current.every(({ data }) => data)).toBe(true))
    sent.length = 0
    // The first that is heard of the site is newer than what was read.
    answers = [json([], 200, at(4, 3))]
    await act(() => noteVersions(client, SITE, { site: 4, treatments: 3 }))
    expect(asked()).toEqual(['products'])
    await act(() => noteVersions(client, SITE, { site: 4, treatments: 3 }))
    expect(asked()).toEqual(['products'])
    // An answer that is overtaken on its way is asked for once more.
    answers = [json([], 200, at(4, 3)), json([], 200, at(5, 3))]
    await act(() => noteVersions(client, SITE, { site: 5 }))
    await waitFor(() => expect(asked()).toEqual(['products', 'blocks', 'blocks']))
    await act(() => noteVersions(client, SITE, { site: 5 }))
    expect(asked()).toHaveLength(3)
    // Many changes in a row hold none of it up: what is on its way comes, and what is behind then is asked for once more.
    answers = [json([], 200, at(6, 3)), json([], 200, at(9, 3))]
    await act(() => Promise.all([6, 7, 8, 9].map((site) => noteVersions(client, SITE, { site }))))
    await waitFor(() => expect(asked().slice(3)).toEqual(['blocks', 'blocks']))
  })

  test('by a write of one’s own is said by its answer; one that was stored before reads everything', async () => {
    answers = [json([])]
    const { result } = renderHook(() => ({ read: [useBlocksHere(), useProductsHere()], write: useWrite(endpoints.demo.setClock) }), {
      wrapper,
    })
    await waitFor(() => expect(result.current.read.every(({ data }) => data)).toBe(true))
    sent.length = 0
    answers = [json({ now: null }, 200, { [CHANGED_HEADER]: JSON.stringify({ [SITE]: { site: 7 } }) }), json([])]
    const input = { now: '2026-06-12T14:30:00Z' }
    await act(() => result.current.write.save({ params: {}, input }))
    expect(asked()).toEqual(['clock', 'blocks'])
    answers = [json({ now: null }), json([])]
    await act(() => result.current.write.save({ params: {}, input }))
    expect(asked().slice(2).sort()).toEqual(['blocks', 'clock', 'products'])
  })
})
