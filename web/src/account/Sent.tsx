import type { FormEvent, ReactNode } from 'react'
import { Sheet, Stack } from '../design/text.js'

/** A form that Enter sends, as browsers and password managers expect it. */
export function Sent({ onSend, children }: { onSend: () => Promise<unknown>; children: ReactNode }) {
  return (
    <form
      onSubmit={(event: FormEvent) => {
        event.preventDefault()
        void onSend()
      }}
    >
      <Sheet>
        <Stack $gap={14}>{children}</Stack>
      </Sheet>
    </form>
  )
}
