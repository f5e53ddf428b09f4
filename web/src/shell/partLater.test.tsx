// @vitest-environment happy-dom
import { cleanup, render, screen } from '@testing-library/react'
import { Component, type ReactNode } from 'react'
import { afterEach, expect, test, vi } from 'vitest'
import { partLater } from './partLater.js'

afterEach(cleanup)

const Here = ({ name }: { name: string }) => <p>{name} is here</p>
const Coming = () => <p>on its way</p>

/** Catches what a part tells the screen. */
class Told extends Component<{ children: ReactNode }> {
  override state = { said: '' }
  static getDerivedStateFromError(error: Error) {
    return { said: error.message }
  }
  override render() {
    return this.state.said ? <p>told: {this.state.said}</p> : this.props.children
  }
}

test('something stands in the place of a part until its code is here; after that it stands at once', async () => {
  const fetched = vi.fn(() => Promise.resolve(Here))
  const Part = partLater(fetched, { meanwhile: Coming })
  const { unmount } = render(<Part name="map" />)
  expect(screen.getByText('on its way')).toBeTruthy()
  await screen.findByText('map is here')
  unmount()
  render(<Part name="strip" />)
  expect(screen.getByText('strip is here')).toBeTruthy()
  expect(fetched).toHaveBeenCalledOnce()
})

test('where its code does not come, what was said stands there, or the screen is told; the next that asks tries again', async () => {
  let line: Promise<typeof Here> = Promise.reject(new Error('the line is down'))
  line.catch(() => undefined)
  const fetched = () => line
  const Aid = partLater(fetched, { meanwhile: Coming, missing: () => <p>nothing</p> })
  const { unmount } = render(<Aid name="strip" />)
  await screen.findByText('nothing')
  unmount()

  vi.spyOn(console, 'error').mockImplementation(() => undefined)
  const Part = partLater(fetched, { meanwhile: Coming })
  const held = render(
    <Told>
      <Part name="map" />
    </Told>,
  )
  await screen.findByText('told: the line is down')
  held.unmount()

  line = Promise.resolve(Here)
  render(<Part name="map" />)
  await screen.findByText('map is here')
})
