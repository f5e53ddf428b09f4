import { useEffect, useId, useRef, useState, type KeyboardEvent } from 'react'
import styled from 'styled-components'
import { colour, size } from './theme.js'

export interface SearchOption {
  id: string
  name: string
  /** Said after the name, such as what kind of thing it is. */
  beside: string
}

const Field = styled.input`
  width: 100%;
  min-height: 42px;
  padding: 6px 10px;
  border: 1px solid ${colour.inkSoft};
  border-radius: 4px;
`
const List = styled.ul`
  max-height: 46vh;
  overflow: auto;
  margin: 0;
  padding: 0;
  list-style: none;
  li {
    padding: 8px 10px;
    border-radius: 3px;
    cursor: pointer;
    &[aria-selected='true'],
    &:hover {
      background: ${colour.petrolSoft};
    }
  }
  small {
    color: ${colour.inkSoft};
    font-size: ${size.small};
  }
`

/**
 * A field with the lines under it that are found by what is typed. The keyboard stays in the field: the arrows go through the lines, Enter
 * takes the one that is lit, at first the uppermost.
 *
 * A list of its own, since React Aria's, made anew with each letter, could run in a circle for ever on a slow machine.
 *
 * @param nothing said where nothing is found
 */
export function SearchList<O extends SearchOption>(p: {
  label: string
  typed: string
  onType: (typed: string) => void
  options: readonly O[]
  onChoose: (option: O) => void
  nothing: string
}) {
  const id = useId()
  const field = useRef<HTMLInputElement>(null)
  const list = useRef<HTMLUListElement>(null)
  const [lit, setLit] = useState({ at: 0, typed: p.typed })
  // What is found by other words is another list.
  const at = lit.typed === p.typed ? Math.min(lit.at, p.options.length - 1) : 0
  const light = (next: number): void => {
    setLit({ at: next, typed: p.typed })
    list.current?.children[next]?.scrollIntoView({ block: 'nearest' })
  }
  useEffect(() => field.current?.focus(), [])
  const onKeyDown = (event: KeyboardEvent): void => {
    const { length } = p.options
    const chosen = p.options[at]
    if (event.nativeEvent.isComposing) return
    if (event.key === 'ArrowDown' && length > 0) light((at + 1) % length)
    else if (event.key === 'ArrowUp' && length > 0) light((at - 1 + length) % length)
    else if (event.key === 'Enter' && chosen) p.onChoose(chosen)
    else return
    event.preventDefault()
  }
  return (
    <>
      <label className="label" htmlFor={`${id}-field`}>
        {p.label}
      </label>
      <Field
        ref={field}
        id={`${id}-field`}
        role="combobox"
        aria-expanded={p.options.length > 0}
        aria-controls={`${id}-list`}
        aria-autocomplete="list"
        aria-activedescendant={p.options.length > 0 ? `${id}-${String(at)}` : undefined}
        autoComplete="off"
        spellCheck={false}
        value={p.typed}
        onChange={(event) => p.onType(event.target.value)}
        onKeyDown={onKeyDown}
      />
      <List ref={list} id={`${id}-list`} role="listbox" aria-label={p.label}>
        {p.options.map((option, index) => (
          <li
            key={option.id}
            id={`${id}-${String(index)}`}
            role="option"
            aria-selected={index === at}
            // The keyboard stays in the field.
            onMouseDown={(event) => event.preventDefault()}
            onClick={() => p.onChoose(option)}
          >
            {option.name} <small>{option.beside}</small>
          </li>
        ))}
      </List>
      <p role="status" style={{ margin: 0 }}>
        {p.options.length === 0 ? p.nothing : null}
      </p>
    </>
  )
}
