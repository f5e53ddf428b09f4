// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen } from '@testing-library/react'
import { useState } from 'react'
import { afterEach, expect, test, vi } from 'vitest'
import { SearchList } from './SearchList.js'

afterEach(cleanup)
const NAMES = ['Codling moth', 'Oriental fruit moth', 'Plum curculio']
const chosen = vi.fn()
function Shown() {
  const [typed, setTyped] = useState('')
  const options = NAMES.filter((name) => name.toLowerCase().includes(typed)).map((name) => ({ id: name, name, beside: 'watch' }))
  return (
    <SearchList label="Find" typed={typed} onType={setTyped} options={options} onChoose={({ id }) => void chosen(id)} nothing="Nothing." />
  )
}
const lit = () => screen.getByRole('option', { selected: true }).textContent
const key = (name: string) => fireEvent.keyDown(screen.getByRole('combobox'), { key: name })

test('the arrows go round through what is found, the field keeps the keyboard, and Enter takes what is lit', () => {
  render(<Shown />)
  const field = screen.getByRole('combobox')
  expect(document.activeElement).toBe(field)
  expect(lit()).toContain('Codling')
  key('ArrowUp')
  expect(lit()).toContain('curculio')
  key('ArrowDown')
  key('ArrowDown')
  expect(field.getAttribute('aria-activedescendant')).toBe(screen.getByRole('option', { selected: true }).id)
  key('Enter')
  expect(chosen).toHaveBeenLastCalledWith('Oriental fruit moth')
  // Other words light the first again.
  fireEvent.change(field, { target: { value: 'moth' } })
  expect(lit()).toContain('Codling')
  fireEvent.click(screen.getByText('Oriental fruit moth'))
  expect(document.activeElement).toBe(field)
})

test('where nothing is found it says so, and Enter does nothing', () => {
  render(<Shown />)
  chosen.mockClear()
  fireEvent.change(screen.getByRole('combobox'), { target: { value: 'walrus' } })
  expect(screen.getByRole('status').textContent).toBe('Nothing.')
  key('ArrowDown')
  key('Enter')
  expect(chosen).not.toHaveBeenCalled()
})
