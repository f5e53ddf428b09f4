import { stat } from 'node:fs/promises'
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

/** A whole file of a hundred megabytes takes half a minute; what takes longer is none that can be read. */
const LONGEST_MS = 240_000

async function inWorker(workerFile: URL, task: WeatherFileTask, onProgress: (share: number) => void): Promise<FileReadings> {
  const { size } = await stat(task.path)
  return new Promise((resolve, reject) => {
    const worker = new Worker(workerFile, {
      workerData: task,
      resourceLimits: { maxYoungGenerationSizeMb: 8, maxOldGenerationSizeMb: 96 + Math.ceil((2.5 * size) / 2 ** 20) },
    })
    const timer = setTimeout(() => {
      reject(new HttpProblem(422, 'Reading this file took too long, so nothing was stored. Send it in parts, a few years each.'))
      void worker.terminate()
    }, LONGEST_MS)
    worker.on('message', (answer: Answer) => {
      if ('share' in answer) onProgress(answer.share)
      else if ('readings' in answer) resolve(answer.readings)
      else reject(new HttpProblem(answer.refused.status, answer.refused.detail))
    })
    worker.once('error', (error: Error & { code?: string }) =>
      reject(
        error.code === 'ERR_WORKER_OUT_OF_MEMORY'
          ? new HttpProblem(
              422,
              'This file takes more memory than a list of readings does, so nothing was stored. Send it in parts, a few years each.',
            )
          : error,
      ),
    )
    worker.once('exit', (code) => {
      clearTimeout(timer)
      reject(new Error(`the reader of weather files ended with ${code}`))
    })
  })
}
