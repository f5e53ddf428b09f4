import { useEffect, useRef, useState } from 'react'
import { dropDraft, keepDraft, readDraft, type Draft } from './drafts.js'

/** As long as somebody types on nothing is written. */
const PAUSE_MS = 300

/**
 * Keeps what is typed into a form beside the server, so that a closed page or a flat battery loses nothing of it.
 *
 * @param key names the form; undefined for one that keeps nothing
 * @param typed what was typed; undefined as long as nothing was
 * @param take hears what had been typed before, once, when there is any
 * @returns since when the draft is that was taken up; null where there was none
 */
export function useDraft(
  key: string | undefined,
  typed: Omit<Draft, 'at'> | undefined,
  take: (draft: Draft) => void,
): { since: string | null; drop: () => void } {
  const [since, setSince] = useState<string | null>(null)
  const [isRead, setIsRead] = useState(false)
  const latest = useRef({ take, typed })
  /** What was stored, or begun anew: though it still stands in the form, it is no draft. */
  const letGo = useRef<string>(undefined)
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined)
  useEffect(() => {
    latest.current = { take, typed }
  })

  useEffect(() => {
    if (key === undefined) return
    let left = false
    void readDraft(key).then((draft) => {
      if (left) return
      // Whoever was faster than the store has begun something else.
      if (draft && !latest.current.typed) {
        latest.current.take(draft)
        setSince(draft.at)
      }
      setIsRead(true)
    })
    return () => {
      left = true
    }
  }, [key])

  const text = typed && JSON.stringify(typed)
  useEffect(() => {
    if (text !== letGo.current) letGo.current = undefined
    if (key === undefined || !isRead) return
    const write = (): void => {
      const { typed: now } = latest.current
      if (now && JSON.stringify(now) !== letGo.current) void keepDraft(key, { ...now, at: new Date().toISOString() })
      else void dropDraft(key)
    }
    timer.current = setTimeout(write, PAUSE_MS)
    // The page may be gone before the pause is over.
    const now = (): void => {
      clearTimeout(timer.current)
      write()
    }
    window.addEventListener('pagehide', now)
    return () => {
      clearTimeout(timer.current)
      window.removeEventListener('pagehide', now)
    }
  }, [key, text, isRead])

  // A form that is left keeps what was typed a moment before, also where the store has not been read by then.
  useEffect(() => {
    if (key === undefined) return
    return () => {
      const { typed: now } = latest.current
      if (now && JSON.stringify(now) !== letGo.current) void keepDraft(key, { ...now, at: new Date().toISOString() })
    }
  }, [key])

  const drop = (): void => {
    clearTimeout(timer.current)
    letGo.current = text
    setSince(null)
    if (key !== undefined) void dropDraft(key)
  }
  return { since, drop }
}
