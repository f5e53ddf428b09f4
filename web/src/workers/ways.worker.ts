import { expose } from 'comlink'
import { windowsOfWays } from './ways.js'

/** The windows of ways to act, away from the page's own thread. */
const api = { windowsOfWays }
export type WaysWorker = typeof api
expose(api)
