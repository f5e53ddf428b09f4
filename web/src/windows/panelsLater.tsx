import type { Organism, WatchForecast } from '@bocado/contract'
import type { BandTable } from '../band/BandTable.js'
import type { ComponentProps } from 'react'
import { later } from '../shell/later.js'
import { Nothing, partLater } from '../shell/partLater.js'
import type { HourBoard } from './HourBoard.js'
import type { NewWatch } from './AddWatch.js'
import type { FirstSteps } from './FirstSteps.js'
import type { ViewProps } from './View.js'
import type { Planning } from './usePlanning.js'

/* Forms and panels that few open at once: each comes when somebody asks for it, so that the windows stand sooner. */

const records = later(() => import('./OwnRecords.js'))
const figures = later(() => import('./ModelFigures.js'))
const ways = later(() => import('./WaysToAct.js'))
const adding = later(() => import('./AddWatch.js'))
const acting = later(() => import('./Acting.js'))
const view = later(() => import('./View.js'))
const steps = later(() => import('./FirstSteps.js'))
const editing = later(() => import('./EditWatch.js'))
const table = later(() => import('../band/BandTable.js'))
const board = later(() => import('./HourBoard.js'))
const dates = later(() => import('./EventDates.js'))
const moved = later(() => import('./WhyMoved.js'))

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
export const ActingLater = partLater<OfWatch & { organism: Organism; planning: Planning }>(async () => (await acting()).Acting)
/** Small aids: while they come, their places stay empty. */
export const ViewLater = partLater<ViewProps>(async () => (await view()).View, { meanwhile: Nothing })
export const FirstStepsLater = partLater<ComponentProps<typeof FirstSteps>>(async () => (await steps()).FirstSteps, { meanwhile: Nothing })
export const BandTableLater = partLater<ComponentProps<typeof BandTable>>(async () => (await table()).BandTable)
export const AddWatchLater = partLater<NewWatch>(async () => (await adding()).AddWatch)
export const HourBoardLater = partLater<ComponentProps<typeof HourBoard>>(async () => (await board()).HourBoard, { meanwhile: Nothing })
