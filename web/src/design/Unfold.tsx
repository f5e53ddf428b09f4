import { useState, type ReactNode } from 'react'
import { TextButton } from './buttons.js'
import { Stack } from './text.js'

/** What few ask for, behind a word: it is made, and read from the server, once somebody opens it. */
export function Unfold({ title, children }: { title: string; children: ReactNode }) {
  const [isOpen, setOpen] = useState(false)
  return (
    <Stack>
      <TextButton onPress={() => setOpen(!isOpen)} aria-expanded={isOpen}>
        {title}
      </TextButton>
      {isOpen ? children : null}
    </Stack>
  )
}
