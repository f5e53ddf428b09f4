// @vitest-environment happy-dom
import { act, cleanup, fireEvent, render, screen } from '@testing-library/react'
import { useState } from 'react'
import { I18nProvider } from 'react-aria-components'
import { afterEach, expect, test, vi } from 'vitest'
import { DateField } from './DateField.js'

afterEach(cleanup)

/** A field whose day is taken over by its form only `late` ms after it was typed, as where the address of the page carries it. */
function Late({ late, told }: { late: number; told: (day: string | null) => void }) {
  const [day, setDay] = useState<string | null>('2026-06-12')
  return (
    <I18nProvider locale="en-GB">
      <DateField
        label="Day"
        value={day}
        onChange={(next) => {
          told(next)
          setTimeout(() => setDay(next), late)
        }}
      />
    </I18nProvider>
  )
}

const type = (digits: string): void => {
  for (const digit of digits) {
    const segment = document.activeElement as HTMLElement
    fireEvent(segment, new InputEvent('beforeinput', { data: digit, inputType: 'insertText', bubbles: true, cancelable: true }))
  }
}
const shown = (): string =>
  screen
    .getAllByRole('spinbutton')
    .map((segment) => segment.textContent)
    .join('/')

test.each([0, 300])('a day is typed digit by digit, though its form takes it over %i ms later', (late) => {
  vi.useFakeTimers()
  const told = vi.fn<(day: string | null) => void>()
  render(<Late late={late} told={told} />)
  act(() => screen.getAllByRole('spinbutton')[0]!.focus())
  for (const digit of '26052026') {
    act(() => type(digit))
    act(() => void vi.advanceTimersByTime(40))
  }
  expect(shown()).toBe('26/05/2026')
  act(() => (document.activeElement as HTMLElement).blur())
  act(() => void vi.advanceTimersByTime(1000))
  expect(told).toHaveBeenLastCalledWith('2026-05-26')
  expect(shown()).toBe('26/05/2026')
  vi.useRealTimers()
})

test('a year of two digits is of this century, once the field is left', () => {
  const told = vi.fn<(day: string | null) => void>()
  render(<Late late={0} told={told} />)
  act(() => screen.getAllByRole('spinbutton')[0]!.focus())
  for (const digit of '040724') act(() => type(digit))
  expect(told.mock.calls.every(([day]) => day === null || day.startsWith('2026'))).toBe(true)
  act(() => (document.activeElement as HTMLElement).blur())
  expect(told).toHaveBeenLastCalledWith('2024-07-04')
})
