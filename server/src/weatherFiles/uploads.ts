import { createHash, randomUUID } from 'node:crypto'
import { createWriteStream } from 'node:fs'
import { mkdir, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { Transform } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import type { Request } from 'express'
import { HttpProblem } from '../http/problems.js'

/** A file as it was received: it lies on the disk, not in the memory. */
export interface Upload {
  path: string
  bytes: number
  /** SHA-256 of what it holds. */
  hash: string
}

const MOST_BYTES = 120 * 2 ** 20
/** Files that are received, read or stored at a time; whoever comes later is asked to come again. */
const AT_ONCE = 4
/** A file comes within this time, or not at all. */
const LONGEST_MS = 10 * 60_000

const FOLDER = join(tmpdir(), `bocado-uploads-${process.pid}`)
let underWay = 0

/** Receives a file onto the disk, hands it over, and takes it away again. */
export async function received<T>(req: Request, use: (upload: Upload) => Promise<T>): Promise<T> {
  if (!req.is('application/octet-stream')) throw new HttpProblem(400, 'Send the file as application/octet-stream.')
  if (Number(req.header('Content-Length') ?? 0) > MOST_BYTES) throw tooLarge()
  if (underWay >= AT_ONCE)
    throw new HttpProblem(503, `${AT_ONCE} files are being taken in already. Send this one again when one of them is done.`, {
      retryAfter: 10,
    })
  underWay++
  const path = join(FOLDER, randomUUID())
  try {
    await mkdir(FOLDER, { recursive: true, mode: 0o700 })
    const hash = createHash('sha256')
    let bytes = 0
    const counted = new Transform({
      transform(part: Buffer, _, done) {
        bytes += part.length
        if (bytes > MOST_BYTES) return done(tooLarge())
        hash.update(part)
        done(null, part)
      },
    })
    await pipeline(req, counted, createWriteStream(path, { mode: 0o600 }), { signal: AbortSignal.timeout(LONGEST_MS) })
    return await use({ path, bytes, hash: hash.digest('hex') })
  } finally {
    underWay--
    await rm(path, { force: true })
  }
}

const tooLarge = (): HttpProblem => new HttpProblem(413, 'This is larger than Bocado accepts: 120 MB for a weather file. Send it in parts.')

/** Takes away what a server that was ended left behind. */
export const clearUploads = (): Promise<void> => rm(FOLDER, { recursive: true, force: true })
