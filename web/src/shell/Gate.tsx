import { useQueryClient } from '@tanstack/react-query'
import { useEffect, useMemo } from 'react'
import { Outlet } from 'react-router'
import { useIsKnown, useSession } from '../api/session.js'
import { beginSending } from '../api/unsent.js'
import { WorkplaceContext } from '../api/workplace.js'
import { Connection } from './Connection.js'
import { later } from './later.js'
import { partLater } from './partLater.js'
import { Waiting } from './Waiting.js'

const signInScreen = later(() => import('../account/SignInScreen.js'))
const SignInScreen = partLater(async () => (await signInScreen()).SignInScreen)

/** Lets in whoever is signed in; for everybody else it is the door. */
export function Gate() {
  const session = useSession()
  const person = session?.person ?? null
  const client = useQueryClient()
  const personId = person?.id
  const isKnown = useIsKnown()
  useEffect(() => (personId === undefined ? undefined : beginSending(client, personId, isKnown)), [client, personId, isKnown])
  const workplace = useMemo(
    () => ({
      personId: person?.id ?? null,
      name: person?.name ?? '',
      byCode: person?.byCode ?? false,
      units: person?.settings.units ?? null,
      others: session?.demo ?? null,
    }),
    [person?.id, person?.name, person?.byCode, person?.settings.units, session?.demo],
  )
  if (!session) {
    return (
      <>
        <Connection />
        <Waiting />
      </>
    )
  }
  if (!person) {
    return <SignInScreen session={session} />
  }
  return (
    <WorkplaceContext value={workplace}>
      <Outlet />
    </WorkplaceContext>
  )
}
