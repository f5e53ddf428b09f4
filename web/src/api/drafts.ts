import { openDB, type DBSchema, type IDBPDatabase } from 'idb'

/** What was typed into a form and not stored yet. */
export interface Draft {
  values: unknown
  /** Version of the row that it was typed over; null for a new one. */
  rowVersion: number | null
  /** When it was typed last, ISO. */
  at: string
}

interface Kept extends DBSchema {
  draft: { key: string; value: Draft }
}

/** A draft that nobody came back to for so long is let go. */
const KEPT_DAYS = 60

let opened: Promise<IDBPDatabase<Kept> | undefined> | undefined

/** The browser's own store; undefined where it has none, or does not give it, as in a private window. */
function store(): Promise<IDBPDatabase<Kept> | undefined> {
  opened ??= openDB<Kept>('bocado', 1, { upgrade: (db) => void db.createObjectStore('draft') }).then(
    (db) => db,
    () => undefined,
  )
  return opened
}

/** Forgets the connection to the store; for tests. */
export const closeDrafts = async (): Promise<void> => {
  ;(await opened)?.close()
  opened = undefined
}

/** The draft under a key, if there is one that is not too old. */
export async function readDraft(key: string): Promise<Draft | undefined> {
  try {
    const draft = await (await store())?.get('draft', key)
    if (!draft) return undefined
    const oldest = new Date()
    oldest.setDate(oldest.getDate() - KEPT_DAYS)
    if (draft.at >= oldest.toISOString()) return draft
    await dropDraft(key)
  } catch {
    // Without it the form begins as it would have.
  }
  return undefined
}

/** Keeps a draft. That it cannot be kept keeps nobody from typing. */
export async function keepDraft(key: string, draft: Draft): Promise<void> {
  try {
    await (await store())?.put('draft', draft, key)
  } catch {
    // The disk is full, or the store was taken away.
  }
}

/** Lets a draft go. */
export async function dropDraft(key: string): Promise<void> {
  try {
    await (await store())?.delete('draft', key)
  } catch {
    // It is let go when it is old.
  }
}
