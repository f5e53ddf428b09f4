import type { Writable } from 'node:stream'

/**
 * Waits until a stream takes more, or is gone. It never throws: what broke the stream is told by whoever uses it, and a second error
 * that nobody waits for would end the process.
 *
 * @returns whether there is anything left to write to
 */
export function roomIn(stream: Writable): Promise<boolean> {
  if (stream.destroyed || stream.errored) return Promise.resolve(false)
  if (!stream.writableNeedDrain) return Promise.resolve(true)
  return new Promise((resolve) => {
    const settle = (): void => {
      for (const event of ['drain', 'close', 'error']) stream.off(event, settle)
      resolve(!stream.destroyed && !stream.errored)
    }
    for (const event of ['drain', 'close', 'error']) stream.once(event, settle)
  })
}
