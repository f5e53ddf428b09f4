import { parentPort, workerData } from 'node:worker_threads'
import type { WeatherMapping } from '@bocado/contract'
import { HttpProblem } from '../http/problems.js'
import { decodeText, splitCells } from './text.js'
import { readingsOf } from './readings.js'
import { understandLines, type StationClock } from './understand.js'

/** Reads one whole file away from the event loop, and answers with its readings or the reason why there are none. */
export interface WeatherFileTask {
  bytes: Uint8Array
  mapping: WeatherMapping
  clock: StationClock
}

const { bytes, mapping, clock } = workerData as WeatherFileTask
const say = (share: number): void => parentPort?.postMessage({ share })
try {
  const lines = splitCells(decodeText(bytes), mapping.separator)
  say(0.35)
  const understood = understandLines(lines, mapping, clock)
  say(0.8)
  parentPort?.postMessage({ readings: readingsOf(understood, mapping, clock.utcOffsetMinutes) })
} catch (error) {
  if (!(error instanceof HttpProblem)) throw error
  parentPort?.postMessage({ refused: { status: error.status, detail: error.message } })
}
