import type { ToldApart } from '@bocado/contract'
import { lazy, Suspense } from 'react'
import { later } from '../shell/later.js'
import type { Subject } from './useToldApart.js'

const questions = later(() => import('./TellApart.js'))
const Question = lazy(async () => ({ default: (await questions()).TellApart }))
const Reminder = lazy(async () => ({ default: (await questions()).ToldApartReminder }))

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
