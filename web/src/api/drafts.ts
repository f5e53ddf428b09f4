import { browserStore, type Draft } from './browserStore.js'

export type { Draft }

/** A draft that nobody came back to for so long is let go. */
const KEPT_DAYS = 60

/** The draft under a key, if there is one that is not too old. */
export async function readDraft(key: string): Promise<Draft | undefined> {
  try {
    const draft = await (await browserStore())?.get('draft', key)
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
    await (await browserStore())?.put('draft', draft, key)
  } catch {
    // The disk is full, or the store was taken away.
  }
}

/** Lets a draft go. */
export async function dropDraft(key: string): Promise<void> {
  try {
    await (await browserStore())?.delete('draft', key)
  } catch {
    // It is let go when it is old.
  }
}

const isGroup = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && Object.getPrototypeOf(value) === Object.prototype

/** A field that begins empty. What holds something, and is not in a draft, was taken out. */
const isEmpty = (value: unknown): boolean => value === null || value === '' || value === false

/**
 * What a form begins with under what was typed: a field that an older page did not have stays as it begins; within a group of fields as long as
 * it begins empty there.
 */
export function underDraft<V extends Record<string, unknown>>(initial: V, typed: Readonly<Record<string, unknown>>): V {
  const merged: Record<string, unknown> = { ...initial }
  for (const [name, value] of Object.entries(typed)) {
    const begins = initial[name]
    merged[name] = isGroup(begins) && isGroup(value) ? { ...emptyOf(begins), ...value } : value
  }
  return merged as V
}

const emptyOf = (group: Record<string, unknown>): Record<string, unknown> =>
  Object.fromEntries(Object.entries(group).filter(([, value]) => isEmpty(value)))
