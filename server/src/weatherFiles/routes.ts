import { endpoints, id, needOf, type ImportResult } from '@bocado/contract'
import { raw, type Request, type RequestHandler, type Response, type Router } from 'express'
import { z } from 'zod'
import { csvOf } from '../http/csv.js'
import { signInOf } from '../http/identity.js'
import { limitWrites } from '../http/limits.js'
import { HttpProblem, toProblem } from '../http/problems.js'
import { download, parse, read, requireWriter, write, type Serving } from '../http/route.js'
import { reading, writing } from '../http/serving.js'
import { getStation } from '../weather/stations.js'
import { findImport, listImports, listRejections } from './store.js'
import { clockOf, PREVIEW_BYTES, previewFile, readFile, storeFile } from './service.js'
import { undoImport } from './undo.js'
import { received, type Upload } from './uploads.js'

export function weatherFileRoutes(router: Router, serving: Serving): void {
  const { weather } = endpoints
  const head = raw({ type: 'application/octet-stream', limit: PREVIEW_BYTES })

  /** Whose file it is and where it shall go is known before anything of it is taken in. */
  const toKnownStation: RequestHandler = async (req, _res, next) => {
    const { siteId, stationId } = parse(weather.preview.params, req.params)
    await reading(serving, async ({ db }) => {
      await requireWriter(db, needOf(weather.preview), signInOf(req), siteId)
      await getStation(db, siteId, stationId)
    })
    next()
  }

  router.post(weather.preview.path, ...limitWrites, toKnownStation, head, async (req: Request, res: Response) => {
    const { siteId, stationId } = parse(weather.preview.params, req.params)
    const { mapping, written } = parse(weather.preview.input, req.query)
    if (!Buffer.isBuffer(req.body)) throw new HttpProblem(400, 'Send the file as application/octet-stream.')
    const clock = await reading(serving, (deps) => clockOf(deps, siteId, stationId))
    res.json(previewFile(req.body, clock, mapping, written))
  })

  /** With `Accept: application/x-ndjson` the answer is a stream of progress lines that ends in the result or a problem. */
  router.post(weather.import.path, ...limitWrites, toKnownStation, async (req: Request, res: Response) => {
    const params = parse(weather.import.params, req.params)
    const input = parse(weather.import.input, req.query)
    const streaming = req.accepts(['application/json', 'application/x-ndjson']) === 'application/x-ndjson'
    const result = await received(req, async (upload) => {
      if (streaming) res.status(200).type('application/x-ndjson')
      const say = (line: unknown): void => {
        if (streaming) res.write(`${JSON.stringify(line)}\n`)
      }
      try {
        const stored = await runImport(serving, params, input, upload, signInOf(req), (phase, share) => say({ phase, share }))
        return stored
      } catch (error) {
        if (!streaming) throw error
        return { problem: toProblem(error).problem }
      }
    })
    if (!streaming) res.json(result)
    else res.end(`${JSON.stringify('problem' in result ? result : { result })}\n`)
  })

  read(router, serving, weather.imports, ({ deps, params }) => listImports(deps.db, params.siteId))

  write(router, serving, weather.undoImport, (ctx) => undoImport(ctx, ctx.params.importId), { long: true })

  const rejected = z.object({ siteId: id, importId: id })
  download(router, serving, '/sites/:siteId/weather-imports/:importId/rejected.csv', rejected, z.object({}), async ({ db }, p) => ({
    type: 'text/csv',
    fileName: `rejected-${p.importId.slice(0, 8)}.csv`,
    body: csvOf({
      fields: ['line', 'reason', 'content'],
      data: (await listRejections(db, p.siteId, p.importId)).map(({ line, reason, content }) => [line, reason, content]),
    }),
  }))
}

/** The import's id is the client's: sent again after a lost answer, it finds the import done and stores nothing twice. */
async function runImport(
  serving: Serving,
  { siteId, stationId }: { siteId: string; stationId: string },
  input: { importId: string; fileName: string; mapping: Parameters<typeof readFile>[3] },
  upload: Upload,
  token: string | undefined,
  onProgress: (phase: 'reading' | 'storing', share: number) => void,
): Promise<ImportResult> {
  const { done, clock } = await reading(serving, async (deps) => ({
    done: await findImport(deps.db, siteId, input.importId, { hash: upload.hash, stationId }),
    clock: await clockOf(deps, siteId, stationId),
  }))
  if (done) return done
  const readings = await readFile(serving.readWeatherFile, upload.path, clock, input.mapping, (share) => onProgress('reading', share))
  onProgress('storing', 0)
  return writing(
    serving,
    async ({ db: tx, clock: time }) => {
      const personId = await requireWriter(tx, needOf(endpoints.weather.import), token, siteId)
      const w = { tx, siteId, personId, now: await time.now(tx) }
      // The same import may have been stored while this one was read.
      const earlier = await findImport(tx, siteId, input.importId, { hash: upload.hash, stationId })
      return earlier ?? storeFile(w, { ...input, stationId, readings, hash: upload.hash }, (share) => onProgress('storing', share))
    },
    { long: true },
  )
}
