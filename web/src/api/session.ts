import { endpoints, type Session } from '@bocado/contract'
import { useQueryClient } from '@tanstack/react-query'
import { useEffect } from 'react'
import { onSignedOut } from './client.js'
import { useRead } from './hooks.js'
import { remember, remembered, SESSION } from './takeSession.js'

/** Whether the server has said who is signed in, since this page opened. */
export const useIsKnown = (): boolean => useRead(endpoints.account.session, { params: {}, input: {} }).data !== undefined

/** Who is signed in, as the server says, or as far as this browser remembers; undefined until either is known. */
export function useSession(): Session | undefined {
  const client = useQueryClient()
  const { data } = useRead(endpoints.account.session, { params: {}, input: {} })
  useEffect(() => {
    if (data) remember(data.person)
  }, [data])
  useEffect(
    () =>
      onSignedOut(() => {
        remember(null)
        const before = client.getQueryData<Session>(SESSION)
        client.setQueryData(SESSION, { phone: null, demo: null, first: null, ...before, person: null })
        void client.invalidateQueries({ queryKey: SESSION })
      }),
    [client],
  )
  const person = data === undefined ? remembered() : undefined
  return data ?? (person ? { person, phone: null, demo: null, first: null } : undefined)
}
