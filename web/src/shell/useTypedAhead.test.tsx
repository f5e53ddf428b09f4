// @vitest-environment happy-dom
import { renderHook } from '@testing-library/react'
import { expect, test, vi } from 'vitest'
import { useTypedAhead } from './useTypedAhead.js'

const type = (key: string, more: KeyboardEventInit = {}): boolean =>
  document.body.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true, ...more }))

test('what is typed before the dialog stands is neither lost nor taken for a shortcut', () => {
  const shortcut = vi.fn()
  window.addEventListener('keydown', shortcut)
  const { result, unmount } = renderHook(useTypedAhead)
  type('h')
  expect(shortcut).toHaveBeenCalledTimes(1)
  result.current.begin()
  for (const key of ['m', 'o', 'l', 'l', 'Backspace', 't', 'Shift']) type(key)
  type('z', { ctrlKey: true })
  // Shift and what is held with Ctrl go on to whoever hears them.
  expect(shortcut).toHaveBeenCalledTimes(3)
  expect(result.current.take()).toBe('molt')
  type('h')
  expect(shortcut).toHaveBeenCalledTimes(4)
  result.current.begin()
  type('x')
  // Where the frame goes before the dialog came, the keys are free again.
  unmount()
  type('h')
  expect(shortcut).toHaveBeenCalledTimes(5)
  window.removeEventListener('keydown', shortcut)
})
