import { expose } from 'comlink'
import type { School, SeasonPlan, SeasonSources } from '../band/season.js'
import { planAll } from './season.js'

/** A season under every school, away from the page's own thread. */
const api = {
  planAll: (sources: SeasonSources, first: School, told: (plan: SeasonPlan) => void, step: (done: number) => void) =>
    planAll(sources, first, told, step),
}
export type SeasonWorker = typeof api
expose(api)
