import { useEffect } from 'react'

const SWITCH = 'bocado.keys'

/** Single keys can be switched off, for those who speak or tap their input. */
export const keysAreOn = (): boolean => localStorage.getItem(SWITCH) !== 'off'
export const switchKeys = (on: boolean): void => localStorage.setItem(SWITCH, on ? 'on' : 'off')

/** Runs an action for a key by the character that it types, wherever that key lies; not while somebody is typing text. */
export function useKeys(actions: Readonly<Record<string, () => void>>): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if (!keysAreOn() || event.defaultPrevented || event.ctrlKey || event.metaKey || event.altKey) return
      const target = event.target as HTMLElement
      if (target.closest('input, textarea, select, [contenteditable=true], [role=spinbutton], [role=listbox], [role=dialog]')) return
      const action = actions[event.key]
      if (!action) return
      event.preventDefault()
      action()
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  })
}
