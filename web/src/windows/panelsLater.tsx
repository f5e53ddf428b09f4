import type { Organism, WatchForecast } from '@bocado/contract'
import { lazy, Suspense, type ComponentType } from 'react'
import { later } from '../shell/later.js'
import { Waiting } from '../shell/Waiting.js'
import type { NewWatch } from './AddWatch.js'
import type { PhoneViewProps } from './PhoneView.js'
import type { Planning } from './usePlanning.js'

/* Forms and panels that few open at once: each comes when somebody asks for it, so that the windows stand sooner. */

const records = later(() => import('./OwnRecords.js'))
const figures = later(() => import('./ModelFigures.js'))
const ways = later(() => import('./WaysToAct.js'))
const adding = later(() => import('./AddWatch.js'))
const planning = later(() => import('./PlanPanel.js'))
const phoneView = later(() => import('./PhoneView.js'))
const steps = later(() => import('./FirstSteps.js'))
const moved = later(() => import('./WhyMoved.js'))

function panelOf<P extends object>(fetched: () => Promise<ComponentType<P>>): ComponentType<P> {
  const Panel = lazy(async () => ({ default: await fetched() })) as unknown as ComponentType<P>
  return (p: P) => (
    <Suspense fallback={<Waiting />}>
      <Panel {...p} />
    </Suspense>
  )
}

interface OfWatch {
  forecast: WatchForecast
}

export const OwnRecordsLater = panelOf<OfWatch>(async () => (await records()).OwnRecords)
export const ModelFiguresLater = panelOf<OfWatch>(async () => (await figures()).ModelFigures)
export const WhyMovedLater = panelOf<OfWatch>(async () => (await moved()).WhyMoved)
export const WaysToActLater = panelOf<OfWatch & { organism: Organism; onPlan: (key: string) => void }>(async () => (await ways()).WaysToAct)
export const PlanPanelLater = panelOf<OfWatch & { planning: Planning }>(async () => (await planning()).PlanPanel)
export const PhoneViewLater = panelOf<PhoneViewProps>(async () => (await phoneView()).PhoneView)
/** An aid: while it comes, nothing stands there. */
export const FirstStepsLater = lazy(async () => ({ default: (await steps()).FirstSteps }))
export const AddWatchLater = panelOf<NewWatch>(async () => (await adding()).AddWatch)
