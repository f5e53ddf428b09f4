import { createContext, useContext, useEffect, useMemo, useState, type ReactNode } from 'react'
import styled from 'styled-components'
import { RequestProblem } from '../api/client.js'
import { lastAct, noteAct, onAct } from '../api/lastAct.js'
import { TextButton } from '../design/buttons.js'
import { colour, PHONE } from '../design/theme.js'
import { useText } from '../messages/useText.js'

interface Undo {
  /** Says what was done and offers to take it back. */
  offer: (text: string, undo: () => Promise<unknown>) => void
}

const UndoContext = createContext<Undo>({ offer: () => undefined })
export const useUndo = (): Undo => useContext(UndoContext)

/** As much room as the strip takes. */
const Beneath = styled.div`
  height: 72px;
`
const Strip = styled.div`
  position: fixed;
  left: 20px;
  bottom: 20px;
  z-index: 10;
  display: flex;
  gap: 16px;
  align-items: center;
  padding: 10px 18px;
  border-radius: 4px;
  background: ${colour.ink};
  color: ${colour.white};
  button {
    color: ${colour.white};
  }
  @media ${PHONE} {
    left: 10px;
    right: 10px;
    bottom: 70px;
  }
`

/** How long an offer stands; not counted while somebody is at it. */
const STANDS_MS = 20_000

/** Where something is being typed, the browser's own undoing is meant. */
const isTyping = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  target.closest('input, textarea, select, [contenteditable=true], [role=spinbutton], [role=dialog]') !== null

/**
 * Removing needs no question where it can be undone: one offer at a time, until the next, until it is put away, or until it has stood for
 * a while. Ctrl+Z takes back one's own last act, also when its offer has gone, or says why not. A refusal that no form shows, of a button
 * pressed or of an undoing, is said in the same place.
 */
export function UndoProvider({ children }: { children: ReactNode }) {
  const t = useText()
  const [said, setSaid] = useState<{ text: string; undo: (() => Promise<unknown>) | null } | null>(null)
  const [isHeld, setHeld] = useState(false)
  const takeBack = (undo: () => Promise<unknown>): Promise<void> =>
    undo().then(() => {
      noteAct('nothing')
      setSaid({ text: t('undo.done'), undo: null })
    })
  const value = useMemo<Undo>(
    () => ({
      offer: (text, undo) => {
        noteAct(undo)
        setSaid({ text, undo })
      },
    }),
    [],
  )
  useEffect(() => {
    const onRefusal = (event: PromiseRejectionEvent): void => {
      if (!(event.reason instanceof RequestProblem)) return
      event.preventDefault()
      setSaid({ text: event.reason.problem.detail, undo: null })
    }
    const onKey = (event: KeyboardEvent): void => {
      if (event.key.toLowerCase() !== 'z' || !(event.ctrlKey || event.metaKey) || event.shiftKey || event.altKey || isTyping(event.target))
        return
      event.preventDefault()
      const last = lastAct()
      if (typeof last === 'function') void takeBack(last)
      else setSaid({ text: t(`undo.${last}`), undo: null })
    }
    window.addEventListener('unhandledrejection', onRefusal)
    window.addEventListener('keydown', onKey)
    return () => {
      window.removeEventListener('unhandledrejection', onRefusal)
      window.removeEventListener('keydown', onKey)
    }
  })
  // What stands there must take back what was done last, not what was done before it.
  useEffect(() => onAct((act) => setSaid((now) => (now?.undo && now.undo !== act ? null : now))), [])
  useEffect(() => {
    if (!said || isHeld) return
    const gone = setTimeout(() => setSaid(null), STANDS_MS)
    return () => clearTimeout(gone)
  }, [said, isHeld])
  return (
    <UndoContext value={value}>
      {children}
      {/* What lies behind the strip can be scrolled out from behind it. */}
      {said ? <Beneath /> : null}
      <div role="status">
        {said ? (
          <Strip
            onPointerEnter={() => setHeld(true)}
            onPointerLeave={() => setHeld(false)}
            onFocus={() => setHeld(true)}
            onBlur={() => setHeld(false)}
          >
            {said.text}
            {said.undo ? <TextButton onPress={() => said.undo && void takeBack(said.undo)}>{t('undo')}</TextButton> : null}
            <TextButton
              onPress={() => {
                setHeld(false)
                setSaid(null)
              }}
            >
              {t('putAway')}
            </TextButton>
          </Strip>
        ) : null}
      </div>
    </UndoContext>
  )
}
