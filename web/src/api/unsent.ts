import { endpoints, type Endpoint } from '@bocado/contract'
import type { QueryClient } from '@tanstack/react-query'
import { useSyncExternalStore } from 'react'
import { browserStore, isStoreGone, type Unsent } from './browserStore.js'
import { call, RequestProblem, Unreachable, type Call } from './client.js'
import { onReachable } from './connection.js'
import { patience, readAnew, watched } from './hooks.js'

export type { Unsent }

/** What is recorded standing up, and so may be recorded without signal. */
const KINDS: readonly Endpoint[] = [
  endpoints.scouting.create,
  endpoints.traps.check,
  endpoints.flags.add,
  endpoints.flags.visit,
  endpoints.flags.addSearch,
  endpoints.harvests.add,
  endpoints.bloom.add,
  endpoints.crops.addStage,
  endpoints.calibration.addSighting,
  endpoints.library.keepUnknown,
  endpoints.library.check,
  endpoints.treatments.plan,
  endpoints.treatments.record,
  endpoints.treatments.recordUnplanned,
  endpoints.helping.find,
  endpoints.helping.work,
  endpoints.plots.look,
]
export const nameOf = ({ method, path }: Pick<Endpoint, 'method' | 'path'>): string => `${method} ${path}`

/** What became of a record that was sent. */
type Outcome = { answer: unknown } | { error: RequestProblem }

let items: readonly Unsent[] = []
const listeners = new Set<() => void>()
const outcomes = new Map<string, (outcome: Outcome) => void>()
let sender: { client: QueryClient; personId: string; isKnown: boolean } | null = null
let again: ReturnType<typeof setTimeout> | undefined
let isSending = false
/** The record whose answer is waited for. */
let onItsWay: string | null = null
let failures = 0

/** Other pages of this browser hear that the queue has changed. */
const others = typeof BroadcastChannel === 'undefined' ? null : new BroadcastChannel('bocado.unsent')
others?.addEventListener('message', () => void look())

/** Reads what waits; it is read by itself where somebody is signed in. */
export async function look(): Promise<void> {
  try {
    items = (await (await browserStore())?.getAll('unsent')) ?? items
  } catch {
    // What was read before stands as long as the store does not answer.
  }
  listeners.forEach((listener) => listener())
}

async function changed(): Promise<void> {
  await look()
  others?.postMessage('changed')
}

/** What waits on this device, of whoever recorded it, in its order. */
export const useUnsent = (): readonly Unsent[] =>
  useSyncExternalStore(
    (listener) => {
      listeners.add(listener)
      return () => listeners.delete(listener)
    },
    () => items,
  )

/** How the server refuses a record of somebody else than the one who sends it. */
const OF_ANOTHER = 'Somebody else made this record.'

/** Between two tries. */
const FIRST_PAUSE_MS = 500
const LONGEST_PAUSE_MS = 15_000
/** A line that has died without a word holds up the queue no longer than this; a photo over a weak one takes its time. */
const LONGEST_ANSWER_MS = 60_000

/**
 * Sends what waits whenever an answer may come, for whoever is signed in; the way to stop is returned.
 *
 * @param isKnown the server has said who it is; as long as it is only remembered nothing is sent, which might go in somebody else's name
 */
export function beginSending(client: QueryClient, personId: string, isKnown = true): () => void {
  sender = { client, personId, isKnown }
  const now = (): void => {
    failures = 0
    void send()
  }
  void look().then(now)
  window.addEventListener('online', now)
  const unheard = onReachable(now)
  return () => {
    unheard()
    window.removeEventListener('online', now)
    clearTimeout(again)
    sender = null
  }
}

/** One page at a time sends, so that the order stands. */
async function send(): Promise<void> {
  if (isSending || !sender?.isKnown) return
  isSending = true
  clearTimeout(again)
  try {
    // A browser without locks has one page, or the server finds what is sent twice.
    const { locks } = navigator as { locks?: LockManager }
    const sending = locks ? locks.request('bocado.unsent', { ifAvailable: true }, (lock) => (lock ? sendAll() : false)) : sendAll()
    const isDone = await sending.catch((error: unknown) => {
      // What waits in a store that was closed meanwhile is sent from the next.
      if (isStoreGone(error)) return false
      throw error
    })
    if (!isDone && sender) again = setTimeout(() => void send(), Math.min(FIRST_PAUSE_MS * 2 ** failures++, LONGEST_PAUSE_MS))
    else failures = 0
  } finally {
    isSending = false
  }
}

/** @returns whether nothing is left that could be sent */
async function sendAll(): Promise<boolean> {
  const db = await browserStore()
  const faulty = new Set<string>()
  for (;;) {
    const all = (await db?.getAll('unsent')) ?? []
    const next = all.find(({ refused, personId, id }) => refused === null && personId === sender?.personId && !faulty.has(id))
    if (!next) return faulty.size === 0
    try {
      onItsWay = next.id
      const { answer, seen } = await sendOne(next)
      await db?.delete('unsent', next.order as number)
      // As with every other form: it closes when what it changed is in sight.
      void seen.then(() => outcomes.get(next.id)?.({ answer }))
      failures = 0
    } catch (error) {
      if (!(error instanceof RequestProblem)) {
        if (error instanceof Unreachable) return false
        throw error
      }
      const { status, detail, fields = [] } = error.problem
      // Nobody is signed in any more, or somebody else, in another window: it waits until they are.
      if (status === 401 || (status === 403 && detail.startsWith(OF_ANOTHER))) return true
      // A fault of the server passes; what stands behind it does not wait for that.
      // So does its asking for less at once.
      if (status >= 500 || status === 429) faulty.add(next.id)
      else {
        const said = [detail, ...fields.map(({ message }) => message)].filter((words, i, list) => words && list.indexOf(words) === i)
        await db?.put('unsent', { ...next, refused: said.join(' · ') })
        outcomes.get(next.id)?.({ error })
      }
    } finally {
      onItsWay = null
    }
    await changed()
  }
}

async function sendOne(item: Unsent): Promise<{ answer: unknown; seen: Promise<unknown> }> {
  const e = KINDS.find((kind) => nameOf(kind) === item.what)
  if (!e) throw new Error(`no record is ${item.what}`)
  let changes: Parameters<typeof readAnew>[1] = {}
  const answer = await watched(
    call(e, { params: item.params, input: inputOf(item) } as Call<Endpoint>, {
      idempotencyKey: item.id,
      patienceMs: LONGEST_ANSWER_MS,
      onChanged: (what) => (changes = what),
    }),
  )
  return { answer, seen: sender ? Promise.race([readAnew(sender.client, changes), patience()]) : Promise.resolve() }
}

/** The record with its id and with when, in which order and by whom it was made. */
export const inputOf = ({ id, order = 0, at, personId, input }: Unsent): Record<string, unknown> => ({
  ...input,
  id,
  made: { at, order, by: personId },
})

/**
 * Keeps a record in the browser and sends it.
 *
 * @param patienceMs how long an answer is waited for; then it waits on this device
 * @param isHeldByForm a form still holds it when it is refused: then that is thrown, and nothing kept
 * @returns what was answered; null while it waits, or stands in the list with its refusal
 */
export async function keepAndSend(record: Omit<Unsent, 'order' | 'refused'>, patienceMs: number, isHeldByForm: boolean): Promise<unknown> {
  const db = await browserStore()
  if (!db || !sender) throw new NoStore()
  await db.add('unsent', { ...record, refused: null }).catch((cause: unknown) => {
    throw new NoStore('nothing can be kept', { cause })
  })
  const outcome = new Promise<Outcome | null>((resolve) => {
    outcomes.set(record.id, resolve)
    setTimeout(() => resolve(null), patienceMs)
  })
  await changed()
  void send()
  const said = await outcome
  outcomes.delete(record.id)
  if (said === null) return null
  if ('answer' in said) return said.answer
  if (!isHeldByForm) return null
  await letGo(record.id)
  throw said.error
}

/** The browser gives no place to keep anything in, or nobody is signed in who could send it. */
export class NoStore extends Error {}

/** Lets go of what waits. @returns it; undefined where it was sent meanwhile */
export async function letGo(id: string): Promise<Unsent | undefined> {
  if (id === onItsWay) return undefined
  const db = await browserStore()
  const transaction = db?.transaction('unsent', 'readwrite')
  const item = (await transaction?.store.getAll())?.find((one) => one.id === id)
  if (item) await transaction?.store.delete(item.order as number)
  await transaction?.done
  await changed()
  return item
}

/** Puts back what was let go of, or tries again what was refused. */
export async function waitAgain(item: Unsent): Promise<void> {
  await (await browserStore())?.put('unsent', { ...item, refused: null })
  await changed()
  void send()
}
