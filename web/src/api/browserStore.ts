import { openDB, type DBSchema, type IDBPDatabase } from 'idb'

/** What was typed into a form and not stored yet. */
export interface Draft {
  values: unknown
  /** Version of the row that it was typed over; null for a new one. */
  rowVersion: number | null
  /** When it was typed last, ISO. */
  at: string
}

/** An answer of the server as it was read last. */
export interface Answer {
  data: unknown
  siteId: string
  /** When it was read, ISO. */
  at: string
}

/** What was recorded here and is not stored by the server yet. */
export interface Unsent {
  /** Its own, by which the server stores it once. */
  id: string
  /** Its place in the queue; given by the store. */
  order?: number
  /** Which operation it is. */
  what: string
  params: Record<string, string>
  input: Record<string, unknown>
  /** Who recorded it, and when, ISO. */
  personId: string
  personName: string
  at: string
  siteName: string
  /** What it is, in words. */
  says: string
  /** What was typed into the form that it comes from, and where that form is. */
  form: { draft: string; values: unknown; address: string } | null
  /** What the server said against it; null while it waits. */
  refused: string | null
}

interface Kept extends DBSchema {
  draft: { key: string; value: Draft }
  answer: { key: string; value: Answer }
  unsent: { key: number; value: Unsent }
}

/** Raised with the shape of the store, and with that of what the server answers: what an older page kept of it is then let go. */
const VERSION = 9

let opened: Promise<IDBPDatabase<Kept> | undefined> | undefined

/** The browser's own store; undefined where it has none, or does not give it, as in a private window. */
export function browserStore(): Promise<IDBPDatabase<Kept> | undefined> {
  opened ??= openDB<Kept>('bocado', VERSION, {
    upgrade: (db, from, _to, transaction) => {
      if (from < 1) db.createObjectStore('draft')
      if (from < 2) db.createObjectStore('answer')
      // What was typed is kept; what was read is read anew.
      else void transaction.objectStore('answer').clear()
      if (from < 4) db.createObjectStore('unsent', { keyPath: 'order', autoIncrement: true })
    },
    // A page of a newer Bocado wants to change the store: it is let go, and this page does without.
    blocking: (_, __, event) => {
      opened = Promise.resolve(undefined)
      ;(event.target as IDBDatabase).close()
    },
    // The browser took it away: it is opened anew.
    terminated: () => {
      opened = undefined
    },
  }).then(
    (db) => db,
    () => undefined,
  )
  return opened
}

/** Whether something failed because the store was closed meanwhile: it may be opened anew. */
export const isStoreGone = (error: unknown): boolean =>
  error instanceof Error && (error.name === 'InvalidStateError' || error.name === 'AbortError')

/** Forgets the connection to the store; for tests. */
export const closeBrowserStore = async (): Promise<void> => {
  ;(await opened)?.close()
  opened = undefined
}
