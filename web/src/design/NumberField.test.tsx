// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen } from '@testing-library/react'
import { useState } from 'react'
import { IntlProvider } from 'react-intl'
import { afterEach, expect, test } from 'vitest'
import { en } from '../messages/en.js'
import { NumberField } from './NumberField.js'
import { PositionFields } from './PositionFields.js'

afterEach(cleanup)

let last: number | null
function Area() {
  const [value, setValue] = useState<number | null>(null)
  last = value
  return (
    <IntlProvider locale="en-GB" messages={en}>
      <NumberField label="Area" unit="ha" value={value} onChange={setValue} />
      <button onClick={() => setValue(7.25)}>elsewhere</button>
    </IntlProvider>
  )
}
const field = (name: string): HTMLInputElement => screen.getByRole('textbox', { name })
const type = (name: string, text: string): void => void fireEvent.change(field(name), { target: { value: text } })

test('a comma is taken for decimals and stands as it was typed until the field is left', () => {
  render(<Area />)
  type('Area', '2,5')
  expect(last).toBe(2.5)
  expect(field('Area').value).toBe('2,5')
  fireEvent.blur(field('Area'))
  expect(field('Area').value).toBe('2.5')
})

test('a fraction is refused with a word, stays in sight, and is no number that a form would take', () => {
  render(<Area />)
  type('Area', '1/4')
  fireEvent.blur(field('Area'))
  expect(field('Area').value).toBe('1/4')
  expect(field('Area').getAttribute('aria-invalid')).toBe('true')
  screen.getByText(/Write “1\/4” with decimals/)
  expect(last).toBeNaN()
  type('Area', '0.25')
  expect(last).toBe(0.25)
  expect(screen.queryByText(/with decimals/)).toBeNull()
})

test('a value from elsewhere takes the place of what was typed; arrows step', () => {
  render(<Area />)
  type('Area', 'much')
  fireEvent.click(screen.getByText('elsewhere'))
  expect(field('Area').value).toBe('7.25')
  fireEvent.keyDown(field('Area'), { key: 'ArrowUp' })
  expect(last).toBe(8.25)
})

let at: { latitude: number | null; longitude: number | null }
function Place() {
  const [position, set] = useState<typeof at>({ latitude: null, longitude: null })
  at = position
  const of = (axis: 'latitude' | 'longitude') => ({
    value: position[axis],
    onChange: (value: number | null) => set((before) => ({ ...before, [axis]: value })),
    error: undefined,
  })
  return (
    <IntlProvider locale="en-GB" messages={en}>
      <PositionFields latitude={of('latitude')} longitude={of('longitude')} />
    </IntlProvider>
  )
}

test('degrees and minutes are read; both at once fill both fields; what cannot be read says so and is not silently nothing', () => {
  render(<Place />)
  type('Latitude', "42° 27' N")
  expect(at.latitude).toBe(42.45)
  type('Latitude', '46.2, −119.3')
  expect(at).toEqual({ latitude: 46.2, longitude: -119.3 })
  expect(field('Longitude').value).toBe('-119.3')
  type('Longitude', 'by the river')
  screen.getByText(/Write it as −119.3/)
  expect(at.longitude).toBeNaN()
})
