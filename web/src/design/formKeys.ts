import { useEffect, useRef, type RefObject } from 'react'

/** Fields that Enter saves from; a list that is searched by typing needs the key itself. */
const FIELDS = 'input:not([type=checkbox], [type=radio], [role=combobox])'
const END = 'data-form-end'

/** Nearest around a field that ends as a form does. */
function formOf(field: Element): Element | null {
  for (let at = field.parentElement; at; at = at.parentElement) if (at.querySelector(`:scope > [${END}]`)) return at
  return null
}

/**
 * Enter in a field of the form saves it, Ctrl+Enter wherever one is in it, and Escape leaves it. The form is what lies around the element
 * that takes what is returned.
 *
 * @param onSave stores the form; it hears of the key only after the field has taken what was typed
 * @param onLeave leaves the form; what was typed is kept as its draft. A form that always stands is not left
 */
export function useFormKeys<E extends HTMLElement>(onSave: () => unknown, onLeave?: () => void): { ref: RefObject<E | null>; [END]: true } {
  const end = useRef<E>(null)
  const latest = useRef({ onSave, onLeave })
  useEffect(() => {
    latest.current = { onSave, onLeave }
  })
  useEffect(() => {
    let isSaving = false
    const save = (field: HTMLElement): void => {
      // However often the key is pressed, what is on its way is stored once.
      if (isSaving) return
      isSaving = true
      // A number or a day is taken when its field is left.
      field.blur()
      field.focus({ preventScroll: true })
      setTimeout(() => void Promise.resolve(latest.current.onSave()).finally(() => (isSaving = false)))
    }
    // On the document, so that what opens within the form has answered its own keys before.
    const onKey = (event: KeyboardEvent): void => {
      const field = event.target
      if (!(field instanceof HTMLElement) || event.defaultPrevented || event.isComposing || event.shiftKey || event.altKey) return
      const isWithCtrl = event.ctrlKey || event.metaKey
      if (!end.current || formOf(field) !== end.current.parentElement) return
      if (event.key === 'Escape' && latest.current.onLeave && !isWithCtrl && field.getAttribute('aria-expanded') !== 'true') {
        event.preventDefault()
        latest.current.onLeave()
      } else if (event.key === 'Enter' && (isWithCtrl || field.matches(FIELDS))) {
        event.preventDefault()
        if (!event.repeat) save(field)
      }
    }
    document.addEventListener('keydown', onKey)
    return () => document.removeEventListener('keydown', onKey)
  }, [])
  return { ref: end, [END]: true }
}
