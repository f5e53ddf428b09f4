import { expose } from 'comlink'
import { weedYears } from './weeds.js'

/** What the years would bring, followed away from the page's own thread. */
const api = { weedYears }
export type WeedsWorker = typeof api
expose(api)
