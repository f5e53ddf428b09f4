// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen } from '@testing-library/react'
import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { rowKeys } from './rowKeys.js'

beforeEach(() => vi.spyOn(HTMLElement.prototype, 'getClientRects').mockReturnValue([{}] as unknown as DOMRectList))
afterEach(() => {
  cleanup()
  vi.restoreAllMocks()
})

function List({ rows, field = -1 }: { rows: number; field?: number }) {
  return (
    <>
      <button>before</button>
      <ul onKeyDown={rowKeys}>
        {Array.from({ length: rows }, (_, i) => (
          <li key={i}>
            <button>edit {i}</button>
            {/* One row has a single control. */}
            {i === 2 ? null : <button>remove {i}</button>}
            {i === field ? <input aria-label="typed" /> : null}
          </li>
        ))}
      </ul>
      <button>behind</button>
    </>
  )
}
const press = (on: string, key: string, shiftKey = false): string => {
  const target = screen.queryByText(on) ?? screen.getByLabelText(on)
  target.focus()
  fireEvent.keyDown(target, { key, shiftKey })
  return document.activeElement?.textContent ?? ''
}

test('rows that are alike are one stop: Tab leaves behind the last control of a row, Shift+Tab before its first', () => {
  render(<List rows={6} />)
  expect(press('remove 1', 'Tab')).toBe('behind')
  expect(press('edit 4', 'Tab', true)).toBe('before')
  // Inside a row the key is the browser's.
  expect(press('edit 1', 'Tab')).toBe('edit 1')
})

test('arrows go to the same control of the next row, or to its last, and stay at the ends', () => {
  render(<List rows={6} />)
  expect(press('remove 0', 'ArrowDown')).toBe('remove 1')
  expect(press('remove 1', 'ArrowDown')).toBe('edit 2')
  expect(press('remove 3', 'ArrowUp')).toBe('edit 2')
  expect(press('edit 0', 'ArrowUp')).toBe('edit 0')
  expect(press('remove 5', 'ArrowDown')).toBe('remove 5')
})

test('a few rows, and a row in which something is typed, are left as they are', () => {
  const { unmount } = render(<List rows={3} />)
  expect(press('remove 1', 'Tab')).toBe('remove 1')
  unmount()
  render(<List rows={6} field={1} />)
  expect(press('typed', 'Tab')).toBe('')
  expect(press('typed', 'ArrowDown')).toBe('')
})
