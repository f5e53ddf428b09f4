import { useEffect, useState } from 'react'

/** Catches what is typed between the moment when a dialog is asked for and the one when it takes the keys. */
export interface TypedAhead {
  /** From here on nothing that is typed is lost or taken for a shortcut. */
  begin: () => void
  /** What was typed by then; from here on the keys are free. */
  take: () => string
}

function catchTyped(): TypedAhead {
  let caught = ''
  const onKey = (event: KeyboardEvent): void => {
    if (event.ctrlKey || event.metaKey || event.altKey) return
    if (event.key === 'Backspace') caught = caught.slice(0, -1)
    else if (event.key.length === 1) caught += event.key
    else return
    event.preventDefault()
    event.stopPropagation()
  }
  return {
    begin: () => window.addEventListener('keydown', onKey, { capture: true }),
    take: () => {
      window.removeEventListener('keydown', onKey, { capture: true })
      const typed = caught
      caught = ''
      return typed
    },
  }
}

/** What is typed ahead, for as long as the component stands that asks for dialogs. */
export function useTypedAhead(): TypedAhead {
  const [ahead] = useState(catchTyped)
  useEffect(() => () => void ahead.take(), [ahead])
  return ahead
}
