import { createContext, useContext, useMemo, useState, type ReactNode } from 'react'
import styled from 'styled-components'
import { RequestProblem } from '../api/client.js'
import { TextButton } from '../design/controls.js'
import { colour, PHONE } from '../design/theme.js'
import { useText } from '../messages/useText.js'

interface Offer {
  text: string
  undo: () => Promise<unknown>
}

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

/** Removing needs no question where it can be undone: one offer at a time, until the next or until it is put away. */
export function UndoProvider({ children }: { children: ReactNode }) {
  const t = useText()
  const [offer, setOffer] = useState<Offer | null>(null)
  const [refused, setRefused] = useState<string | null>(null)
  const value = useMemo<Undo>(
    () => ({
      offer: (text, undo) => {
        setRefused(null)
        setOffer({ text, undo })
      },
    }),
    [],
  )
  const takeBack = async ({ undo }: Offer): Promise<void> => {
    try {
      await undo()
      setOffer(null)
    } catch (error) {
      if (!(error instanceof RequestProblem)) throw error
      setRefused(error.problem.detail)
    }
  }
  return (
    <UndoContext value={value}>
      {children}
      <div role="status">
        {offer ? (
          <Strip>
            {refused ?? offer.text}
            {refused === null ? <TextButton onPress={() => void takeBack(offer)}>{t('undo')}</TextButton> : null}
            <TextButton onPress={() => setOffer(null)}>{t('putAway')}</TextButton>
          </Strip>
        ) : null}
      </div>
    </UndoContext>
  )
}
