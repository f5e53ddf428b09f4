import { createContext, useContext, useEffect, useMemo, useState, type ReactNode } from 'react'
import styled from 'styled-components'
import { RequestProblem } from '../api/client.js'
import { TextButton } from '../design/buttons.js'
import { colour, PHONE } from '../design/theme.js'
import { useText } from '../messages/useText.js'

interface Undo {
  /** Says what was done and offers to take it back. */
  offer: (text: string, undo: () => Promise<unknown>) => void
}

const UndoContext = createContext<Undo>({ offer: () => undefined })
export const useUndo = (): Undo => useContext(UndoContext)

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

/**
 * Removing needs no question where it can be undone: one offer at a time, until the next or until it is put away. A refusal that no form
 * shows, of a button pressed or of an undoing, is said in the same place.
 */
export function UndoProvider({ children }: { children: ReactNode }) {
  const t = useText()
  const [said, setSaid] = useState<{ text: string; undo: (() => Promise<unknown>) | null } | null>(null)
  const value = useMemo<Undo>(() => ({ offer: (text, undo) => setSaid({ text, undo }) }), [])
  useEffect(() => {
    const onRefusal = (event: PromiseRejectionEvent): void => {
      if (!(event.reason instanceof RequestProblem)) return
      event.preventDefault()
      setSaid({ text: event.reason.problem.detail, undo: null })
    }
    window.addEventListener('unhandledrejection', onRefusal)
    return () => window.removeEventListener('unhandledrejection', onRefusal)
  }, [])
  return (
    <UndoContext value={value}>
      {children}
      <div role="status">
        {said ? (
          <Strip>
            {said.text}
            {said.undo ? <TextButton onPress={() => void said.undo?.().then(() => setSaid(null))}>{t('undo')}</TextButton> : null}
            <TextButton onPress={() => setSaid(null)}>{t('putAway')}</TextButton>
          </Strip>
        ) : null}
      </div>
    </UndoContext>
  )
}
