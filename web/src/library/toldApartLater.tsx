import type { ToldApart } from '@bocado/contract'
import { later } from '../shell/later.js'
import { Nothing, partLater } from '../shell/partLater.js'
import type { Subject } from './useToldApart.js'

const questions = later(() => import('./TellApart.js'))
const BARE = { meanwhile: Nothing }
/** Asks for the character that decides, with its drawings, which come when it is asked. */
export const TellApartLater = partLater<{ told: ToldApart; subject: Subject }>(async () => (await questions()).TellApart, BARE)
/** The same once more, as somebody goes out to do it. */
export const ReminderLater = partLater<{ subject: Subject }>(async () => (await questions()).ToldApartReminder, BARE)
