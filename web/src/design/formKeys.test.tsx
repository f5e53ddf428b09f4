// @vitest-environment happy-dom
import { act, cleanup, fireEvent, render, screen } from '@testing-library/react'
import { useState } from 'react'
import { IntlProvider } from 'react-intl'
import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import type { Site } from '@bocado/contract'
import { SiteProvider } from '../api/workplace.js'
import { en } from '../messages/en.js'
import { Select, TextField } from './controls.js'
import { EntryEnd } from './EntryEnd.js'
import { NumberField } from './NumberField.js'

const SITE = { units: 'metric', timeZone: 'America/Los_Angeles' } as Site
const saved = vi.fn<(typed: string) => void>()
/** What storing waits for. */
let stored: Promise<unknown> = Promise.resolve()
const left = vi.fn<() => void>()
const discarded = vi.fn<() => void>()
beforeEach(() => {
  saved.mockClear()
  left.mockClear()
  discarded.mockClear()
})
afterEach(cleanup)

function Form({ isBarred = false, inner = false }) {
  const [values, setValues] = useState<{ name: string; area: number | null; note: string; kind: string }>({
    name: '',
    area: null,
    note: '',
    kind: 'orchard',
  })
  const set = (changes: Partial<typeof values>): void => setValues((before) => ({ ...before, ...changes }))
  return (
    <IntlProvider locale="en-GB" messages={en}>
      <SiteProvider value={SITE}>
        <div>
          <TextField label="Name" value={values.name} onChange={(name) => set({ name })} />
          <NumberField label="Area" value={values.area} onChange={(area) => set({ area })} />
          <TextField label="Note" rows={3} value={values.note} onChange={(note) => set({ note })} />
          <Select
            label="Kind"
            placeholder="choose"
            options={[{ id: 'orchard', label: 'orchard' }]}
            value={values.kind}
            onChange={(kind) => set({ kind })}
          />
          {inner ? <Form /> : null}
          <EntryEnd
            entry={{ draftSince: null, discard: discarded, general: null, isBarred, lacking: null }}
            onSave={async () => {
              saved(`${values.name} ${values.area} ${inner ? 'outer' : ''}`.trim())
              await stored
            }}
            onCancel={left}
          />
        </div>
        <input aria-label="beside" />
      </SiteProvider>
    </IntlProvider>
  )
}

const field = (name: string): HTMLElement => screen.getAllByRole('textbox', { name })[0]!
/** A key, and what it set off. */
const press = async (on: HTMLElement, key: string, more: object = {}): Promise<void> => {
  act(() => on.focus())
  fireEvent.keyDown(on, { key, ...more })
  await act(() => new Promise((done) => setTimeout(done, 5)))
}

test('Enter in a field saves, with what was typed last, and the field keeps the focus', async () => {
  render(<Form />)
  fireEvent.change(field('Name'), { target: { value: 'Stone Row' } })
  fireEvent.change(field('Area'), { target: { value: '4,5' } })
  await press(field('Area'), 'Enter')
  expect(saved.mock.calls).toEqual([['Stone Row 4.5']])
  expect(document.activeElement).toBe(field('Area'))
})

test('Enter is a new line in a long text, opens a list, and is nothing beside the form; with Ctrl it saves from the text too', async () => {
  render(<Form />)
  await press(field('Note'), 'Enter')
  await press(screen.getByRole('button', { name: /Kind/ }), 'Enter')
  expect(saved).not.toHaveBeenCalled()
  await press(screen.getByRole('listbox'), 'Escape')
  expect(left).not.toHaveBeenCalled()
  await press(screen.getByRole('textbox', { name: 'beside' }), 'Enter')
  expect(saved).not.toHaveBeenCalled()
  await press(field('Note'), 'Enter', { ctrlKey: true })
  expect(saved).toHaveBeenCalledTimes(1)
})

test('Escape leaves and lets go of nothing; Cancel lets go', async () => {
  render(<Form />)
  await press(field('Name'), 'Escape')
  expect(left).toHaveBeenCalledTimes(1)
  expect(discarded).not.toHaveBeenCalled()
  fireEvent.click(screen.getByRole('button', { name: 'Cancel' }))
  expect(discarded).toHaveBeenCalledTimes(1)
})

test('what may not be saved is not saved by a key, and a form within a form answers alone', async () => {
  render(<Form isBarred />)
  await press(field('Name'), 'Enter')
  expect(saved).not.toHaveBeenCalled()
  cleanup()
  render(<Form inner />)
  const [outerName, innerName] = screen.getAllByRole('textbox', { name: 'Name' }) as [HTMLElement, HTMLElement]
  await press(innerName, 'Enter')
  expect(saved.mock.calls).toEqual([['null']])
  await press(outerName, 'Enter')
  expect(saved.mock.calls.at(-1)).toEqual(['null outer'])
})

test('a key that is held or pressed twenty times stores once; once it is stored it can be pressed again', async () => {
  let answer = (): void => undefined
  stored = new Promise<void>((done) => (answer = done))
  render(<Form />)
  act(() => field('Name').focus())
  for (let i = 0; i < 20; i++) fireEvent.keyDown(field('Name'), { key: 'Enter', repeat: i > 10 })
  await press(field('Name'), 'Enter')
  expect(saved).toHaveBeenCalledTimes(1)
  answer()
  stored = Promise.resolve()
  await act(() => new Promise((done) => setTimeout(done, 5)))
  await press(field('Name'), 'Enter')
  expect(saved).toHaveBeenCalledTimes(2)
})
