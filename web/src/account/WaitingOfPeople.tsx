import { useEffect } from 'react'
import { look, useUnsent } from '../api/unsent.js'
import { Small } from '../design/text.js'
import { useText } from '../messages/useText.js'

/** Whose records wait on this device, where people come and go: nobody hands on a phone without knowing. */
export function WaitingOfPeople() {
  const t = useText()
  const unsent = useUnsent()
  useEffect(() => void look(), [])
  const people = new Map<string, { person: string; count: number }>()
  for (const { personId, personName } of unsent) people.set(personId, { person: personName, count: (people.get(personId)?.count ?? 0) + 1 })
  return [...people].map(([id, words]) => (
    <Small key={id} role="status">
      {t('offline.ofPerson', words)}
    </Small>
  ))
}
