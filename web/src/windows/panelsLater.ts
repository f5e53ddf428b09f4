import type { Organism, WatchForecast } from '@bocado/contract'
import type { ComponentProps } from 'react'
import type { BandTable } from '../band/BandTable.js'
import { later } from '../shell/later.js'
import { Nothing, partLater } from '../shell/partLater.js'
import type { NewWatch } from './AddWatch.js'
import type { FirstSteps } from './FirstSteps.js'
import type { HourBoard } from './HourBoard.js'
import type { Planning } from './usePlanning.js'
import type { ViewProps } from './View.js'

/* Parts of the screen that come after its rows, so that the windows stand sooner. */

const adding = later(() => import('./AddWatch.js'))
const acting = later(() => import('./Acting.js'))
const view = later(() => import('./View.js'))
const steps = later(() => import('./FirstSteps.js'))
const table = later(() => import('../band/BandTable.js'))
const board = later(() => import('./HourBoard.js'))

interface OfChosen {
  forecast: WatchForecast
  organism: Organism
  planning: Planning
}

export const ActingLater = partLater<OfChosen>(async () => (await acting()).Acting)
/** Small aids: while they come, their places stay empty. */
export const ViewLater = partLater<ViewProps>(async () => (await view()).View, { meanwhile: Nothing })
export const FirstStepsLater = partLater<ComponentProps<typeof FirstSteps>>(async () => (await steps()).FirstSteps, { meanwhile: Nothing })
export const BandTableLater = partLater<ComponentProps<typeof BandTable>>(async () => (await table()).BandTable)
export const AddWatchLater = partLater<NewWatch>(async () => (await adding()).AddWatch)
export const HourBoardLater = partLater<ComponentProps<typeof HourBoard>>(async () => (await board()).HourBoard, { meanwhile: Nothing })
