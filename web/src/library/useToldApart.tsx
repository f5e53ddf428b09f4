import { endpoints, type ToldApart } from '@bocado/contract'
import { lazy, Suspense } from 'react'
import { useRead } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { later } from '../shell/later.js'
import type { Subject } from './TellApart.js'

const questions = later(() => import('./TellApart.js'))
const Question = lazy(async () => ({ default: (await questions()).TellApart }))
const Reminder = lazy(async () => ({ default: (await questions()).ToldApartReminder }))

/** Whether what is watched has been told from its protected look-alikes; undefined until that is known. */
export function useToldApart(watchId: string): ToldApart | undefined {
  const site = useSite()
  return useRead(endpoints.library.toldApart, { params: { siteId: site.id, watchId }, input: {} }).data
}

/** Asks for the character that decides, with its drawings, which come when it is asked. */
export const TellApartLater = (p: { told: ToldApart; subject: Subject }) => (
  <Suspense fallback={null}>
    <Question {...p} />
  </Suspense>
)

/** The same once more, as somebody goes out to do it. */
export const ReminderLater = (p: { subject: Subject }) => (
  <Suspense fallback={null}>
    <Reminder {...p} />
  </Suspense>
)
