// @vitest-environment happy-dom
import { act, cleanup, render, screen } from '@testing-library/react'
import { memo, useState } from 'react'
import { afterEach, expect, test } from 'vitest'
import { useSteady } from './useSteady.js'

afterEach(cleanup)

test('a function stays the same between renders and does what the newest does', () => {
  let drawn = 0
  const heard: number[] = []
  const Key = memo(function Key({ onPress }: { onPress: () => void }) {
    drawn++
    return <button onClick={onPress}>press</button>
  })
  function Page() {
    const [count, setCount] = useState(0)
    const press = useSteady(() => {
      heard.push(count)
      setCount(count + 1)
    })
    return (
      <>
        <p>{count} times</p>
        <Key onPress={press} />
      </>
    )
  }
  render(<Page />)
  for (let i = 0; i < 3; i++) act(() => screen.getByRole('button').click())
  expect(screen.getByText('3 times')).toBeTruthy()
  expect(heard).toEqual([0, 1, 2])
  expect(drawn).toBe(1)
})
