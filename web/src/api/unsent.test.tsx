// @vitest-environment happy-dom
import 'fake-indexeddb/auto'
import { endpoints } from '@bocado/contract'
import { QueryClientProvider, type QueryClient } from '@tanstack/react-query'
import { act, cleanup, renderHook, waitFor } from '@testing-library/react'
import type { ReactNode } from 'react'
import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { browserStore, closeBrowserStore } from './browserStore.js'
import { RequestProblem } from './client.js'
import { noteReachable } from './connection.js'
import { makeQueryClient } from './hooks.js'
import { beginSending, useUnsent, waitAgain } from './unsent.js'
import { useRecorded } from './useRecorded.js'
import { WorkplaceContext, type Workplace } from './workplace.js'

const siteId = '7c9e6679-7425-40de-944b-e07fc1f90ae7'
const placeId = '0b1fd2c4-5b0a-4b8e-9a0f-2f4b1c1d0a11'
const MARIT = '11111111-2222-4333-8444-555555555555'
const DARIO = '99999999-2222-4333-8444-555555555555'

interface Sent {
  kg: number
  id: string
  made: { order: number; by: string }
}
let client: QueryClient
let sent: Sent[]
let answer: (body: Sent) => Promise<Response>
let stop: () => void
const json = (body: unknown, status = 200) =>
  Promise.resolve(new Response(JSON.stringify(body), { status, headers: { 'Content-Type': 'application/json' } }))
const problem = (status: number, detail: string) => json({ type: 'about:blank', title: '', status, detail }, status)
const nothing = () => Promise.reject(new TypeError('network'))
const wrapper = ({ children }: { children: ReactNode }) => {
  const workplace: Workplace = { personId: MARIT, name: 'Marit Solheim', byCode: false, units: null, others: null }
  return (
    <WorkplaceContext value={workplace}>
      <QueryClientProvider client={client}>{children}</QueryClientProvider>
    </WorkplaceContext>
  )
}

beforeEach(() => {
  client = makeQueryClient()
  sent = []
  vi.stubGlobal('fetch', (_: string, init: RequestInit) => {
    const body = JSON.parse(init.body as string) as Sent
    return answer(body).then((response) => {
      if (response.ok) sent.push(body)
      return response
    })
  })
  stop = beginSending(client, MARIT)
})
afterEach(async () => {
  stop()
  cleanup()
  client.clear()
  noteReachable(true)
  await (await browserStore())?.clear('unsent')
  await closeBrowserStore()
  vi.unstubAllGlobals()
})

const harvest = () => renderHook(() => ({ add: useRecorded(endpoints.harvests.add), waits: useUnsent() }), { wrapper })
const pick = (kg: number) => ({ params: { siteId }, input: { placeId, pickedOn: '2026-06-12', kg } })
const record = async ({ result }: ReturnType<typeof harvest>, kg: number) => {
  let done: Awaited<ReturnType<typeof result.current.add.save>> | undefined
  await act(async () => {
    done = await result.current.add.save(pick(kg), `${kg} kg`)
  })
  return done!
}
/** The server is known to be away: nothing is waited for. */
const away = () => {
  answer = nothing
  noteReachable(false)
}

test('what hears no answer waits, and is sent in the order in which it was made once there is one', async () => {
  away()
  const page = harvest()
  for (const kg of [1, 2, 3]) expect((await record(page, kg)).answer).toBeNull()
  await waitFor(() => expect(page.result.current.waits.map(({ says }) => says)).toEqual(['1 kg', '2 kg', '3 kg']))
  answer = () => json({})
  act(() => noteReachable(true))
  await waitFor(() => expect(sent.map(({ kg }) => kg)).toEqual([1, 2, 3]))
  expect(sent.every(({ made }) => made.by === MARIT)).toBe(true)
  expect(sent.map(({ made }) => made.order)).toEqual([...sent.map(({ made }) => made.order)].sort((a, b) => a - b))
  await waitFor(() => expect(page.result.current.waits).toEqual([]))
})

test('an answer that was lost: the same record is sent again under the same id', async () => {
  const ids: string[] = []
  answer = ({ id }) => {
    ids.push(id)
    return ids.length === 1 ? nothing() : json({})
  }
  const page = harvest()
  expect((await record(page, 1)).answer).toEqual({})
  expect(ids).toHaveLength(2)
  expect(new Set(ids).size).toBe(1)
})

test('what is refused at once goes back to its form and waits nowhere', async () => {
  answer = () => problem(422, 'choose a place of this site')
  const page = harvest()
  await expect(page.result.current.add.save(pick(1), '1 kg', null)).rejects.toThrow(RequestProblem)
  await waitFor(() => expect(page.result.current.waits).toEqual([]))
})

test('a refusal of what was recorded by one tap stands in the list: no form holds it', async () => {
  answer = () => problem(422, 'choose a place of this site')
  const page = harvest()
  expect((await record(page, 1)).answer).toBeNull()
  await waitFor(() => expect(page.result.current.waits.map(({ refused }) => refused)).toEqual(['choose a place of this site']))
})

test('where another one has signed in meanwhile, in another window, it waits', async () => {
  away()
  const page = harvest()
  await record(page, 1)
  answer = () => problem(403, 'Somebody else made this record. It is sent once they are signed in here.')
  act(() => noteReachable(true))
  await new Promise((resolve) => setTimeout(resolve, 300))
  expect(page.result.current.waits.map(({ refused }) => refused)).toEqual([null])
})

test('what is refused later stays with its reason, holds up nothing behind it, and can be sent again', async () => {
  away()
  const page = harvest()
  await record(page, 1)
  await record(page, 2)
  answer = ({ kg }) => (kg === 1 ? problem(422, 'choose a place of this site') : json({}))
  act(() => noteReachable(true))
  await waitFor(() => expect(sent.map(({ kg }) => kg)).toEqual([2]))
  await waitFor(() => expect(page.result.current.waits.map(({ refused }) => refused)).toEqual(['choose a place of this site']))
  answer = () => json({})
  await act(() => waitAgain(page.result.current.waits[0]!))
  await waitFor(() => expect(sent.map(({ kg }) => kg)).toEqual([2, 1]))
})

test('a fault of the server holds up nothing behind it; nobody signed in holds up all', async () => {
  away()
  const page = harvest()
  await record(page, 1)
  await record(page, 2)
  let isFaulty = true
  answer = ({ kg }) => (kg === 1 && isFaulty ? problem(500, 'a fault') : json({}))
  act(() => noteReachable(true))
  await waitFor(() => expect(sent.map(({ kg }) => kg)).toEqual([2]))
  isFaulty = false
  await waitFor(() => expect(sent.map(({ kg }) => kg)).toEqual([2, 1]), { timeout: 4000 })
  away()
  await record(page, 3)
  answer = () => problem(401, 'sign in')
  act(() => noteReachable(true))
  await waitFor(() => expect(page.result.current.waits).toHaveLength(1))
  expect(page.result.current.waits[0]!.refused).toBeNull()
})

test('a store that closes while something is sent is opened anew, and what waits goes on by itself', async () => {
  away()
  const page = harvest()
  await record(page, 1)
  await record(page, 2)
  let isFirst = true
  answer = async () => {
    if (isFirst) await closeBrowserStore()
    isFirst = false
    return json({})
  }
  act(() => noteReachable(true))
  await waitFor(() => expect(page.result.current.waits).toEqual([]), { timeout: 4000 })
  // The first was stored by the server before its place in the store was gone: it goes once more, and is stored once.
  expect(sent.map(({ kg }) => kg)).toEqual([1, 1, 2])
})

test('what one person recorded is not sent by another', async () => {
  away()
  const page = harvest()
  await record(page, 1)
  stop()
  answer = () => json({})
  noteReachable(true)
  stop = beginSending(client, DARIO)
  await new Promise((resolve) => setTimeout(resolve, 300))
  expect(sent).toEqual([])
  stop()
  stop = beginSending(client, MARIT)
  await waitFor(() => expect(sent.map(({ kg }) => kg)).toEqual([1]))
})

test('nothing is sent for whom the page only remembers, until the server has said who it is', async () => {
  stop()
  stop = beginSending(client, MARIT, false)
  away()
  const page = harvest()
  await record(page, 1)
  answer = () => json({})
  act(() => noteReachable(true))
  await new Promise((resolve) => setTimeout(resolve, 300))
  expect(sent).toEqual([])
  stop()
  stop = beginSending(client, MARIT)
  await waitFor(() => expect(sent.map(({ kg }) => kg)).toEqual([1]))
})

test('taken back while it waits, nothing of it is ever sent', async () => {
  away()
  const page = harvest()
  const { takeBack } = await record(page, 1)
  await act(async () => {
    await takeBack!()
  })
  await waitFor(() => expect(page.result.current.waits).toEqual([]))
  answer = () => json({})
  act(() => noteReachable(true))
  await new Promise((resolve) => setTimeout(resolve, 300))
  expect(sent).toEqual([])
})
