import type { ReactNode } from 'react'
import { useFormKeys } from './formKeys.js'
import { Line } from './text.js'

/** The last line of a form, with its buttons: Enter in a field around it does what `onSave` does, Escape what `onLeave` does. */
export function FormLine(p: { onSave: () => unknown; onLeave?: () => void; isBarred: boolean; children: ReactNode }) {
  const end = useFormKeys<HTMLDivElement>(() => (p.isBarred ? undefined : p.onSave()), p.onLeave)
  return <Line {...end}>{p.children}</Line>
}
