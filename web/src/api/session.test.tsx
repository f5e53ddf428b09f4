// @vitest-environment happy-dom
import 'fake-indexeddb/auto'
import { endpoints, type Endpoint, type Role, type Session, type Site } from '@bocado/contract'
import { QueryClientProvider, type QueryClient } from '@tanstack/react-query'
import { act, cleanup, renderHook, waitFor } from '@testing-library/react'
import type { ReactNode } from 'react'
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest'
import { browserStore, closeBrowserStore } from './browserStore.js'
import { makeQueryClient, useRead, useWrite } from './hooks.js'
import { chosenLocale } from '../shell/locale.js'
import { useLacking, useMay } from './may.js'
import { useSession } from './session.js'
import { SESSION_WRITES, takeSession } from './takeSession.js'
import { inUnits, SiteContext, WorkplaceContext } from './workplace.js'

const MARIT = {
  id: '7c9e6679-7425-40de-944b-e07fc1f90ae7',
  name: 'Marit Solheim',
  signInName: 'marit',
  byCode: false,
  settings: { units: null, dates: null },
}
const DARIO = {
  id: '7c9e6679-7425-40de-944b-e07fc1f90ae8',
  name: 'Dario Quince',
  signInName: 'dario',
  byCode: false,
  settings: { units: null, dates: null },
}
const NOBODY: Session = { person: null, phone: null, demo: null, first: null }
const siteId = '7c9e6679-7425-40de-944b-e07fc1f90ae9'

let client: QueryClient
let answer: (url: string) => Promise<Response>
const json = (body: unknown, status = 200) =>
  Promise.resolve(new Response(JSON.stringify(body), { status, headers: { 'Content-Type': 'application/json' } }))
const wrapper = ({ children }: { children: ReactNode }) => <QueryClientProvider client={client}>{children}</QueryClientProvider>

beforeEach(() => {
  client = makeQueryClient()
  vi.stubGlobal('fetch', (url: string) => answer(url))
})
afterEach(async () => {
  cleanup()
  client.clear()
  localStorage.clear()
  await closeBrowserStore()
  indexedDB.deleteDatabase('bocado')
  vi.unstubAllGlobals()
})

describe('who is signed in', () => {
  test('is whom the server says, and remembered while it does not answer', async () => {
    answer = () => json({ ...NOBODY, person: MARIT })
    const first = renderHook(useSession, { wrapper })
    expect(first.result.current).toBeUndefined()
    await waitFor(() => expect(first.result.current?.person).toEqual(MARIT))
    first.unmount()
    client = makeQueryClient()
    answer = () => Promise.reject(new TypeError('network'))
    const later = renderHook(useSession, { wrapper })
    expect(later.result.current?.person).toEqual(MARIT)
  })

  test('is nobody as soon as the server no longer knows them, whatever was asked', async () => {
    localStorage.setItem('bocado.person', JSON.stringify(MARIT))
    answer = (url) =>
      url.endsWith('/session')
        ? json({ ...NOBODY, person: MARIT })
        : json({ title: 'Unauthorized', status: 401, detail: 'Sign in first.' }, 401)
    const { result } = renderHook(useSession, { wrapper })
    await waitFor(() => expect(result.current?.person).toEqual(MARIT))
    answer = (url) => (url.endsWith('/session') ? json(NOBODY) : json({ status: 401, detail: 'Sign in first.' }, 401))
    await act(() =>
      client.prefetchQuery({
        queryKey: ['x'],
        retry: false,
        queryFn: async () => (await import('./client.js')).fetchAnswer('/api/v1/sites', {}),
      }),
    )
    await waitFor(() => expect(result.current?.person).toBeNull())
    expect(localStorage.getItem('bocado.person')).toBeNull()
  })

  test('leaves nothing that was read to the next one, and their own again to the same', async () => {
    const keep = async () => (await browserStore())?.put('answer', { data: 1, siteId, at: new Date().toISOString() }, 'shelf')
    const kept = async () => (await browserStore())?.get('answer', 'shelf')
    await takeSession(client, { ...NOBODY, person: MARIT })
    await keep()
    await takeSession(client, { ...NOBODY, person: MARIT })
    expect(await kept()).toBeDefined()
    await takeSession(client, { ...NOBODY, person: DARIO })
    await waitFor(async () => expect(await kept()).toBeUndefined())
    await keep()
    await takeSession(client, NOBODY)
    await waitFor(async () => expect(await kept()).toBeUndefined())
  })

  test('is shown nothing of what was read for the one before, though nothing of theirs comes', async () => {
    await takeSession(client, { ...NOBODY, person: MARIT })
    answer = () => json([{ name: 'Hollin Bench' }])
    const shelf = renderHook(() => useRead(endpoints.treatments.products, { params: { siteId }, input: {} }), { wrapper })
    await waitFor(() => expect(shelf.result.current.data).toBeDefined())
    answer = () => Promise.reject(new TypeError('network'))
    act(() => void takeSession(client, { ...NOBODY, person: DARIO }))
    await waitFor(() => expect(shelf.result.current.data).toBeUndefined())
  })

  test('stays who came in last, though what was asked before them is answered late', async () => {
    const late: (() => void)[] = []
    const inTime = (answered: Promise<Response>) => new Promise<Response>((resolve) => late.push(() => resolve(answered)))
    answer = (url) => (url.endsWith('/session') ? json({ ...NOBODY, person: MARIT }) : json([]))
    const { result } = renderHook(
      () => ({
        session: useSession(),
        shelf: useRead(endpoints.account.signIns, { params: {}, input: {} }),
        out: useWrite(endpoints.account.signOut),
      }),
      { wrapper },
    )
    await waitFor(() => expect(result.current.shelf.data).toBeDefined())
    answer = (url) => (url.endsWith('/session') ? json(NOBODY) : inTime(json({ status: 401, detail: 'Sign in first.' }, 401)))
    let isOut = false
    act(() => void result.current.out.save({ params: {}, input: {} }).then(() => (isOut = true)))
    await waitFor(() => expect(result.current.session?.person).toBeNull())
    await waitFor(() => expect(late).not.toEqual([]))
    answer = (url) => (url.endsWith('/session') ? inTime(json(NOBODY)) : json([]))
    void client.invalidateQueries()
    await act(() => takeSession(client, { ...NOBODY, person: DARIO }))
    await act(async () => {
      late.forEach((comes) => comes())
      await vi.waitFor(() => expect(isOut).toBe(true), 3000)
      await new Promise((resolve) => setTimeout(resolve, 30))
    })
    expect(result.current.session?.person).toEqual(DARIO)
  })

  test('is taken in by every write that answers with them', () => {
    const answering = Object.values(endpoints)
      .flatMap((group) => Object.values(group) as Endpoint[])
      .filter((e) => e.method !== 'get' && e.response === endpoints.account.session.response)
    expect(new Set(answering)).toEqual(SESSION_WRITES)
  })

  test('has everything read anew when it changes', async () => {
    let asked = 0
    answer = () => json({ now: null, asked: ++asked })
    const { result } = renderHook(() => useRead(endpoints.demo.clock, { params: {}, input: {} }), { wrapper })
    await waitFor(() => expect(result.current.data).toBeDefined())
    await act(() => takeSession(client, { ...NOBODY, person: DARIO }))
    expect(asked).toBe(2)
  })
})

describe('how somebody reads it', () => {
  afterEach(() => localStorage.clear())

  test('is known before the server answers, and is not the next one’s', async () => {
    expect(chosenLocale()).toBe(/^en\b/.test(navigator.language) ? navigator.language : 'en-GB')
    await act(() => takeSession(client, { ...NOBODY, person: { ...MARIT, settings: { units: 'us', dates: 'mdy' } } }))
    expect(chosenLocale()).toBe('en-US')
    await act(() => takeSession(client, { ...NOBODY, person: { ...DARIO, settings: { units: null, dates: 'dmy' } } }))
    expect(chosenLocale()).toBe('en-GB')
    await act(() => takeSession(client, NOBODY))
    expect(localStorage.getItem('bocado.dates')).toBeNull()
  })

  test('a site is shown in one’s own units, and is none other by that', () => {
    const site = { units: 'metric', name: 'Hollin Bench' } as Site
    expect(inUnits(site, 'us')).toEqual({ units: 'us', name: 'Hollin Bench' })
    expect(inUnits(site, null)).toBe(site)
    expect(inUnits(site, 'metric')).toBe(site)
    expect(site.units).toBe('metric')
  })
})

describe('what somebody may', () => {
  const at = (role: Role | null, byCode = false) => ({
    wrapper: ({ children }: { children: ReactNode }) => (
      <WorkplaceContext value={{ personId: MARIT.id, name: MARIT.name, byCode, units: null, others: null }}>
        <SiteContext value={role === null ? null : ({ people: [{ ...MARIT, role }] } as unknown as Site)}>{children}</SiteContext>
      </WorkplaceContext>
    ),
  })
  test.each<[Role | null, boolean]>([
    ['owner', true],
    ['lead', false],
    ['viewer', false],
    // Above the sites everybody may start one.
    [null, true],
  ])('%s may archive a site: %s', (role, is) => expect(renderHook(() => useMay('own'), at(role)).result.current).toBe(is))

  test.each([
    ['scout', endpoints.scouting.create, null],
    ['scout', endpoints.treatments.plan, 'treat'],
    ['applicator', endpoints.treatments.plan, null],
    ['applicator', endpoints.watches.create, 'tend'],
    ['viewer', endpoints.bloom.add, 'observe'],
    // What asks for no right at a site is nobody's lack.
    ['viewer', endpoints.account.signOut, null],
  ] as const)('%s lacks for %o: %s', (role, e, lacking) => expect(renderHook(() => useLacking(e), at(role)).result.current).toBe(lacking))

  test('in by a code on a shared phone does the work of the field, and lacks more than a code for the rest', () => {
    const lacking = (e: Endpoint) => renderHook(() => useLacking(e), at('owner', true)).result.current
    expect([endpoints.scouting.create, endpoints.treatments.plan, endpoints.account.signOut].map(lacking)).toEqual([null, null, null])
    expect([endpoints.sites.archive, endpoints.blocks.create, endpoints.account.setCode].map(lacking)).toEqual(['self', 'self', 'self'])
    expect(renderHook(() => [useMay('treat'), useMay('lead')], at('owner', true)).result.current).toEqual([true, false])
  })
})
