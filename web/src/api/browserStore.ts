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

interface Kept extends DBSchema {
  draft: { key: string; value: Draft }
  answer: { key: string; value: Answer }
}

const VERSION = 2

let opened: Promise<IDBPDatabase<Kept> | undefined> | undefined

/** The browser's own store; undefined where it has none, or does not give it, as in a private window. */
export function browserStore(): Promise<IDBPDatabase<Kept> | undefined> {
  opened ??= openDB<Kept>('bocado', VERSION, {
    upgrade: (db, from) => {
      if (from < 1) db.createObjectStore('draft')
      if (from < 2) db.createObjectStore('answer')
    },
    // A page of a newer Bocado wants to change the store: it is let go, and this page does without.
    blocking: (_, __, event) => (event.target as IDBDatabase).close(),
  }).then(
    (db) => db,
    () => undefined,
  )
  return opened
}

/** Forgets the connection to the store; for tests. */
export const closeBrowserStore = async (): Promise<void> => {
  ;(await opened)?.close()
  opened = undefined
}
