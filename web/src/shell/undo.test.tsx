// @vitest-environment happy-dom
import { act, cleanup, fireEvent, render, screen } from '@testing-library/react'
import { IntlProvider } from 'react-intl'
import { afterEach, expect, test } from 'vitest'
import { lastAct, noteAct } from '../api/lastAct.js'
import { en } from '../messages/en.js'
import { UndoProvider, useUndo } from './Undo.js'

const taken: string[] = []
function Offering({ text }: { text: string }) {
  const undo = useUndo()
  const takeBack = (): Promise<void> => {
    taken.push(text)
    return Promise.resolve()
  }
  return <button onClick={() => undo.offer(text, takeBack)}>{`do ${text}`}</button>
}
const shown = () =>
  render(
    <IntlProvider locale="en-GB" messages={en}>
      <UndoProvider>
        <Offering text="lure changed" />
        <Offering text="row removed" />
      </UndoProvider>
    </IntlProvider>,
  )
afterEach(() => {
  cleanup()
  taken.length = 0
  noteAct('nothing')
})

test('an offer goes as soon as something else is done, so that a press takes back what it says', () => {
  shown()
  fireEvent.click(screen.getByText('do lure changed'))
  screen.getByText('lure changed')
  act(() => noteAct('fixed'))
  expect(screen.queryByText('lure changed')).toBeNull()
  expect(screen.queryByRole('button', { name: 'Undo' })).toBeNull()
})

test('the next offer takes the place of the one before, and Ctrl+Z takes back what it says', async () => {
  shown()
  fireEvent.click(screen.getByText('do lure changed'))
  fireEvent.click(screen.getByText('do row removed'))
  expect(screen.queryByText('lure changed')).toBeNull()
  screen.getByText('row removed')
  await act(async () => {
    fireEvent.keyDown(document.body, { key: 'z', ctrlKey: true })
    await Promise.resolve()
  })
  expect(taken).toEqual(['row removed'])
  expect(lastAct()).toBe('nothing')
})
