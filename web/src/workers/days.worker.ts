import { expose } from 'comlink'
import { bestByNumber } from './days.js'

const api = { bestByNumber }
export type DaysWorker = typeof api
expose(api)
