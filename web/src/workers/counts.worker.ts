import { expose } from 'comlink'
import { countsEnd } from './counts.js'

/** How counts end, simulated away from the page's own thread. */
const api = { countsEnd }
export type CountsWorker = typeof api
expose(api)
