// @vitest-environment happy-dom
import { endpoints, type Problem } from '@bocado/contract'
import { QueryClientProvider, type QueryClient } from '@tanstack/react-query'
import { act, cleanup, render, renderHook, waitFor } from '@testing-library/react'
import type { ReactNode } from 'react'
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest'
import { useStale } from './connection.js'
import { ErrorBoundary } from './testBoundary.js'
import { makeQueryClient, useRead, useWrite } from './hooks.js'

/** What the server answers next; the last one stays. */
let answers: (Response | 'nothing')[] = []
const sent: { url: string; headers: Record<string, string> }[] = []
const json = (body: unknown, status = 200, headers: Record<string, string> = {}): Response =>
  new Response(JSON.stringify(body), { status, headers: { 'Content-Type': 'application/json', ...headers } })
const problem = (status: number, detail: string): Response =>
  json({ type: 'about:blank', title: '', status, detail } satisfies Problem, status)

let client: QueryClient
const wrapper = ({ children }: { children: ReactNode }) => <QueryClientProvider client={client}>{children}</QueryClientProvider>
beforeEach(() => {
  client = makeQueryClient()
  sent.length = 0
  vi.stubGlobal('fetch', (url: string, init: RequestInit) => {
    sent.push({ url, headers: init.headers as Record<string, string> })
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

  test('that somebody else was faster with is not tried again', async () => {
    answers = [problem(409, 'Somebody else changed this meanwhile.')]
    const { result } = renderHook(() => useWrite(setClock), { wrapper })
    await expect(act(() => result.current.save({ params: {}, input: { now: '2026-06-12T14:30:00Z' } }))).rejects.toThrow('Somebody else')
    expect(sent).toHaveLength(1)
  })
})
