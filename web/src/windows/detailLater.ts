import type { Organism, WatchForecast } from '@bocado/contract'
import { later } from '../shell/later.js'
import { partLater } from '../shell/partLater.js'

/* Panels of what is known of a watch, of which few open at once: each comes when somebody asks for it. */

const records = later(() => import('./OwnRecords.js'))
const figures = later(() => import('./ModelFigures.js'))
const ways = later(() => import('./WaysToAct.js'))
const editing = later(() => import('./EditWatch.js'))
const dates = later(() => import('./EventDates.js'))
const moved = later(() => import('./WhyMoved.js'))

const programme = later(() => import('../programme/ProgrammePanel.js'))

interface OfWatch {
  forecast: WatchForecast
}

export const OwnRecordsLater = partLater<OfWatch>(async () => (await records()).OwnRecords)
export const ModelFiguresLater = partLater<OfWatch>(async () => (await figures()).ModelFigures)
export const EditWatchLater = partLater<OfWatch & { items: string; onDone: () => void }>(async () => (await editing()).EditWatch)
export const EventDatesLater = partLater<OfWatch>(async () => (await dates()).EventDates)
export const WhyMovedLater = partLater<OfWatch>(async () => (await moved()).WhyMoved)
export const WaysToActLater = partLater<OfWatch & { organism: Organism; onPlan: (key: string) => void }>(
  async () => (await ways()).WaysToAct,
)
export const ProgrammeLater = partLater<OfWatch & { onPlan: (key: string) => void }>(async () => (await programme()).ProgrammePanel)
