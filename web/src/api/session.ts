import { endpoints, type Session } from '@bocado/contract'
import { useQueryClient, type Query, type QueryClient } from '@tanstack/react-query'
import { useEffect } from 'react'
import { browserStore } from './browserStore.js'
import { onSignedOut } from './client.js'
import { useRead } from './hooks.js'
import { chooseDates } from '../shell/locale.js'
import { noteAct } from './lastAct.js'

const KEY = 'bocado.person'
const SESSION = [endpoints.account.session.path, {}, {}]

type Person = NonNullable<Session['person']>
/** Units of each site, dates of the browser. */
const AS_IT_IS: Person['settings'] = { units: null, dates: null }

/** Who was signed in here last: known before the server answers, and while it does not. */
function remembered(): Person | null {
  try {
    const { id, name, signInName, byCode = false, settings = AS_IT_IS } = JSON.parse(localStorage.getItem(KEY) ?? 'null') as Person
    return { id, name, signInName, byCode, settings }
  } catch {
    return null
  }
}

function remember(person: Person | null): void {
  const before = remembered()
  if (person) localStorage.setItem(KEY, JSON.stringify(person))
  else localStorage.removeItem(KEY)
  chooseDates(person?.settings.dates ?? null)
  if (before?.id === person?.id) return
  // What one person did, and what was read for them, is not the next one's.
  noteAct('nothing')
  void browserStore().then((db) => db?.clear('answer'))
}

/** Takes in what a sign-in or sign-out answered; whatever is shown is read anew for whoever it is now. */
export async function takeSession(client: QueryClient, session: Session): Promise<void> {
  const isOther = client.getQueryData<Session>(SESSION)?.person?.id !== session.person?.id
  remember(session.person)
  client.setQueryData(SESSION, session)
  const rest = { predicate: ({ queryKey }: Query) => queryKey[0] !== SESSION[0] }
  // What was read for one is not shown to another, not even until theirs has come.
  await (isOther ? client.resetQueries(rest) : client.invalidateQueries(rest))
}

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
