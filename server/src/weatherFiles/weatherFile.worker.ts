import { parentPort, workerData } from 'node:worker_threads'
import type { WeatherMapping } from '@bocado/contract'
import { HttpProblem } from '../http/problems.js'
import { readReadings } from './readings.js'
import { decodeText } from './text.js'
import type { StationClock } from './understand.js'

/** Reads one whole file away from the event loop, and answers with its readings or the reason why there are none. */
export interface WeatherFileTask {
  bytes: Uint8Array
  mapping: WeatherMapping
  clock: StationClock
}

const { bytes, mapping, clock } = workerData as WeatherFileTask
const say = (share: number): void => parentPort?.postMessage({ share })
try {
  const text = decodeText(bytes)
  // The text is all that is needed from here on: a file may be a hundred megabytes, and is not held twice.
  structuredClone(bytes.buffer, { transfer: [bytes.buffer as ArrayBuffer] })
  const readings = readReadings(text, mapping, clock, say)
  const { keys, columns } = readings.rows
  parentPort?.postMessage(
    { readings },
    [keys, ...columns].map(({ buffer }) => buffer as ArrayBuffer),
  )
} catch (error) {
  if (!(error instanceof HttpProblem)) throw error
  parentPort?.postMessage({ refused: { status: error.status, detail: error.message } })
}
