import { isMainThread, parentPort, workerData } from 'node:worker_threads'
import { pino } from 'pino'
import { clock } from '../clock.js'
import { Database } from '../database/database.js'
import type { Serving } from '../http/serving.js'
import { Memo } from '../memo.js'
import { StationHistory } from '../weather/history.js'
import { Worker } from './worker.js'

/** What is held between one piece of work and the next may take this much. */
const MEMO_BYTES = 32 * 2 ** 20
const HISTORY_BYTES = 160 * 2 ** 20

/**
 * A worker beside the server: a thread of it, or a process of its own (`npm run worker`) with BOCADO_DATABASE_URL and BOCADO_LOG_LEVEL. It
 * stops when it is told to end, or by SIGTERM.
 */
function run(): void {
  const url = (workerData as { url?: string } | null)?.url ?? process.env['BOCADO_DATABASE_URL']
  if (!url) throw new Error('BOCADO_DATABASE_URL is not set')
  const log = pino({ level: process.env['BOCADO_LOG_LEVEL'] ?? 'warn' })
  const database = new Database(url, { reads: 2, writes: 2 })
  const serving: Serving = {
    database,
    clock,
    history: new StationHistory(HISTORY_BYTES),
    memo: new Memo(MEMO_BYTES),
    readWeatherFile: () => Promise.reject(new Error('a worker reads no files')),
    stored: () => undefined,
  }
  const worker = new Worker(serving, log, (siteId) => parentPort?.postMessage({ derived: siteId }))
  const end = (): void =>
    void worker
      .end()
      .then(() => database.end())
      .then(() => process.exit(0))
  parentPort?.on('message', (message: 'look' | 'end') => (message === 'end' ? end() : worker.look()))
  if (isMainThread) {
    process.once('SIGTERM', end)
    process.once('SIGINT', end)
  }
  worker.start()
}

run()
