import { Worker } from 'node:worker_threads'
import { HttpProblem } from '../http/problems.js'
import type { FileReadings } from './readings.js'
import type { WeatherFileTask } from './weatherFile.worker.js'

export type WeatherFileReader = (task: WeatherFileTask, onProgress: (share: number) => void) => Promise<FileReadings>

type Answer = { share: number } | { readings: FileReadings } | { refused: { status: number; detail: string } }

/** Reads files in worker threads, two at a time: more would only share the same cores. */
export function weatherFileReader(workerFile: URL, atOnce = 2): WeatherFileReader {
  let running = 0
  const waiting: (() => void)[] = []
  return async (task, onProgress) => {
    if (running >= atOnce) await new Promise<void>((resolve) => waiting.push(resolve))
    running++
    try {
      return await inWorker(workerFile, task, onProgress)
    } finally {
      running--
      waiting.shift()?.()
    }
  }
}

function inWorker(workerFile: URL, task: WeatherFileTask, onProgress: (share: number) => void): Promise<FileReadings> {
  return new Promise((resolve, reject) => {
    // The bytes go over to the worker: nobody else needs them, and a file may be a hundred megabytes.
    const bytes = task.bytes.byteLength === task.bytes.buffer.byteLength ? task.bytes : task.bytes.slice()
    const worker = new Worker(workerFile, {
      workerData: { ...task, bytes },
      transferList: [bytes.buffer as ArrayBuffer],
      resourceLimits: { maxYoungGenerationSizeMb: 8, maxOldGenerationSizeMb: 96 + Math.ceil((2.5 * bytes.byteLength) / 2 ** 20) },
    })
    worker.on('message', (answer: Answer) => {
      if ('share' in answer) onProgress(answer.share)
      else if ('readings' in answer) resolve(answer.readings)
      else reject(new HttpProblem(answer.refused.status, answer.refused.detail))
    })
    worker.once('error', reject)
    worker.once('exit', (code) => reject(new Error(`the reader of weather files ended with ${code}`)))
  })
}
