import type { FormEvent, KeyboardEvent, ReactNode } from 'react'
import { Sheet, Stack } from '../design/text.js'

/** A form that Enter sends, as browsers and password managers expect it. Where it can be left, Escape leaves it. */
export function Sent({ onSend, onLeave, children }: { onSend: () => Promise<unknown>; onLeave?: () => void; children: ReactNode }) {
  return (
    <form
      onKeyDown={(event: KeyboardEvent) => {
        if (!onLeave || event.key !== 'Escape' || event.defaultPrevented) return
        event.preventDefault()
        onLeave()
      }}
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
