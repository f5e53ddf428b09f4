import { endpoints, type Endpoint, type Session } from '@bocado/contract'
import type { Query, QueryClient } from '@tanstack/react-query'
import { browserStore } from './browserStore.js'
import { forgetRefusals } from './client.js'
import { forgetPhotos } from './keptPhotos.js'
import { chooseDates } from '../shell/locale.js'
import { noteAct } from './lastAct.js'

const KEY = 'bocado.person'
export const SESSION = [endpoints.account.session.path, {}, {}]

const { account, phones } = endpoints

/** What is answered by who is signed in now. */
export const SESSION_WRITES: ReadonlySet<Endpoint> = new Set<Endpoint>([
  account.signIn,
  account.signInByPasskey,
  account.signInByCode,
  account.demoSignIn,
  account.begin,
  account.useLink,
  account.changePassword,
  account.signOut,
  phones.pair,
])

type Person = NonNullable<Session['person']>
/** Units of each site, dates of the browser. */
const AS_IT_IS: Person['settings'] = { units: null, dates: null }

/** Who was signed in here last: known before the server answers, and while it does not. */
export function remembered(): Person | null {
  try {
    const { id, name, signInName, byCode = false, settings = AS_IT_IS } = JSON.parse(localStorage.getItem(KEY) ?? 'null') as Person
    return { id, name, signInName, byCode, settings }
  } catch {
    return null
  }
}

export function remember(person: Person | null): void {
  const before = remembered()
  if (person) localStorage.setItem(KEY, JSON.stringify(person))
  else localStorage.removeItem(KEY)
  chooseDates(person?.settings.dates ?? null)
  if (before?.id === person?.id) return
  // What one person did, and what was read for them, is not the next one's.
  noteAct('nothing')
  // Nor do pushes for the one come to the other: whoever wants them asks for them anew. The server forgets a device that is gone.
  void endPushes().catch(() => undefined)
  void forgetPhotos()
  void browserStore()
    .then((db) => db?.clear('answer'))
    // Where the store was taken away there is nothing to clear.
    .catch(() => undefined)
}

async function endPushes(): Promise<void> {
  if (!('serviceWorker' in navigator)) return
  const registration = await navigator.serviceWorker.getRegistration()
  await (await registration?.pushManager?.getSubscription())?.unsubscribe()
}

/** Takes in what a sign-in or sign-out answered; whatever is shown is read anew for whoever it is now. */
export async function takeSession(client: QueryClient, session: Session): Promise<void> {
  const isOther = client.getQueryData<Session>(SESSION)?.person?.id !== session.person?.id
  // What was asked before is answered too late: neither who was signed in then nor that nobody was is so any more.
  forgetRefusals()
  await client.cancelQueries({ queryKey: SESSION, exact: true })
  remember(session.person)
  client.setQueryData(SESSION, session)
  const rest = { predicate: ({ queryKey }: Query) => queryKey[0] !== SESSION[0] }
  // What was read for one is not shown to another, not even until theirs has come.
  await (isOther ? client.resetQueries(rest) : client.invalidateQueries(rest))
}
