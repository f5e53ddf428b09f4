import { readFileSync } from 'node:fs'
import { parentPort, workerData } from 'node:worker_threads'
import type { WeatherMapping } from '@bocado/contract'
import { HttpProblem } from '../http/problems.js'
import { readReadings } from './readings.js'
import { decodeText, requireLines } from './text.js'
import type { StationClock } from './understand.js'

/** Reads one whole file away from the event loop, and answers with its readings or the reason why there are none. */
export interface WeatherFileTask {
  /** Where the file lies. */
  path: string
  mapping: WeatherMapping
  clock: StationClock
}

const { path, mapping, clock } = workerData as WeatherFileTask
/** The text is all that is needed: a file may be a hundred megabytes, and is not held twice. */
function textOf(file: string): string {
  const bytes = new Uint8Array(readFileSync(file))
  const text = decodeText(bytes)
  structuredClone(bytes.buffer, { transfer: [bytes.buffer] })
  return text
}

const say = (share: number): void => parentPort?.postMessage({ share })
try {
  const text = textOf(path)
  requireLines(text)
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
