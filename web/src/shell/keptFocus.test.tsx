// @vitest-environment happy-dom
import { act, cleanup, fireEvent, render, screen } from '@testing-library/react'
import { useState, type ReactNode } from 'react'
import { afterEach, beforeEach, expect, test } from 'vitest'
import { keepFocus } from './keptFocus.js'

let end: () => void
beforeEach(() => {
  end = keepFocus()
})
afterEach(() => {
  end()
  cleanup()
})

const frames = (ms = 80): Promise<unknown> => act(() => new Promise((done) => setTimeout(done, ms)))
const button = (name: string): HTMLElement => screen.getByRole('button', { name })
const focused = (): string => document.activeElement?.textContent ?? ''

function Page({ children }: { children: ReactNode }) {
  return (
    <>
      <nav>
        <a href="#elsewhere">Elsewhere</a>
      </nav>
      <div id="screen" tabIndex={-1}>
        {children}
      </div>
    </>
  )
}

function Blocks() {
  const [isOpen, setOpen] = useState(false)
  const [names, setNames] = useState(['Old Apples', 'Long Corn', 'North Patch'])
  return (
    <Page>
      <section>
        {isOpen ? (
          <form>
            <input aria-label="Name" autoFocus />
            <button type="button" onClick={() => setOpen(false)}>
              Save
            </button>
          </form>
        ) : null}
        {names.map((name) => (
          <p key={name}>
            {name} <button onClick={() => setNames(names.filter((one) => one !== name))}>Remove {name}</button>
          </p>
        ))}
        {isOpen ? null : <button onClick={() => setOpen(true)}>Add a block</button>}
      </section>
    </Page>
  )
}

/** Pressed as with a key: the focus is on it. */
const press = async (name: string): Promise<void> => {
  act(() => button(name).focus())
  fireEvent.click(button(name))
  await frames()
}

test('a form that closes gives the focus to what opens it; a form that opens keeps its own', async () => {
  render(<Blocks />)
  await press('Add a block')
  expect(document.activeElement).toBe(screen.getByRole('textbox', { name: 'Name' }))
  await press('Save')
  expect(focused()).toBe('Add a block')
})

test('a removed row gives it to the next one, the last row to what follows', async () => {
  render(<Blocks />)
  await press('Remove Long Corn')
  expect(focused()).toBe('Remove North Patch')
  await press('Remove North Patch')
  expect(focused()).toBe('Add a block')
})

test('what was left by a click on nothing stays left', async () => {
  render(<Blocks />)
  act(() => button('Remove Long Corn').focus())
  act(() => button('Remove Long Corn').blur())
  await frames()
  fireEvent.click(button('Remove North Patch'))
  await frames()
  expect(document.activeElement).toBe(document.body)
})

test('another screen is read from its top', async () => {
  const { rerender } = render(
    <Page>
      <main>
        <button>Open it</button>
      </main>
    </Page>,
  )
  act(() => button('Open it').focus())
  rerender(
    <Page>
      <article>
        <button>Something</button>
      </article>
    </Page>,
  )
  await frames()
  expect(document.activeElement?.id).toBe('screen')
})

function Saving({ goes }: { goes: boolean }) {
  const [state, setState] = useState<'open' | 'shut' | 'gone'>('open')
  return (
    <Page>
      <p>
        {state === 'gone' ? null : (
          <button
            disabled={state === 'shut'}
            onClick={(event) => {
              // As browsers do when what is focused is shut.
              event.currentTarget.blur()
              setState('shut')
              setTimeout(() => setState(goes ? 'gone' : 'open'), 100)
            }}
          >
            Save it
          </button>
        )}
      </p>
      <button>After it</button>
    </Page>
  )
}

test('a button that is shut while something is stored has the focus again when it opens', async () => {
  render(<Saving goes={false} />)
  await press('Save it')
  await frames(150)
  await frames(200)
  expect(focused()).toBe('Save it')
})

test('what stood over the screen gives back what had the focus before', async () => {
  function Undoable() {
    const [offered, setOffered] = useState(true)
    return (
      <>
        <Page>
          <button>Remove it</button>
        </Page>
        {offered ? (
          <div role="status">
            <button onClick={() => setOffered(false)}>Undo</button>
          </div>
        ) : null}
      </>
    )
  }
  render(<Undoable />)
  act(() => button('Remove it').focus())
  await press('Undo')
  expect(focused()).toBe('Remove it')
})

test('nothing that is typed into has the focus by itself: a single key stays a shortcut', async () => {
  function Dated() {
    const [isOpen, setOpen] = useState(true)
    return (
      <Page>
        <section>
          {isOpen ? <button onClick={() => setOpen(false)}>Close it</button> : null}
          <span role="spinbutton" tabIndex={0} aria-label="day" aria-valuenow={1} />
          <input aria-label="Name" />
          <button>Plan it</button>
        </section>
      </Page>
    )
  }
  render(<Dated />)
  await press('Close it')
  expect(focused()).toBe('Plan it')
})
