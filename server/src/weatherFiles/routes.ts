import { endpoints, id, type ImportResult } from '@bocado/contract'
import { raw, type Request, type Response, type Router } from 'express'
import Papa from 'papaparse'
import { HttpProblem, toProblem } from '../http/problems.js'
import { parse, read, writerOf, type Deps } from '../http/route.js'
import { inTransaction } from '../http/transaction.js'
import { findImport, listImports, listRejections } from './store.js'
import { previewFile, readFile, storeFile } from './service.js'

const MOST_BYTES = '120mb'

const bytesOf = (req: Request): Uint8Array => {
  if (!Buffer.isBuffer(req.body)) throw new HttpProblem(400, 'Send the file as application/octet-stream.')
  return req.body
}

export function weatherFileRoutes(router: Router, deps: Deps): void {
  const { weather } = endpoints
  const upload = raw({ type: 'application/octet-stream', limit: MOST_BYTES })

  router.post(weather.preview.path, upload, async (req: Request, res: Response) => {
    const { siteId, stationId } = parse(weather.preview.params, req.params)
    const { mapping } = parse(weather.preview.input, req.query)
    res.json(await previewFile(deps, siteId, stationId, bytesOf(req), mapping))
  })

  /** With `Accept: application/x-ndjson` the answer is a stream of progress lines that ends in the result or a problem. */
  router.post(weather.import.path, upload, async (req: Request, res: Response) => {
    const params = parse(weather.import.params, req.params)
    const input = parse(weather.import.input, req.query)
    const streaming = req.accepts(['application/json', 'application/x-ndjson']) === 'application/x-ndjson'
    if (streaming) res.status(200).type('application/x-ndjson')
    const say = (line: unknown): void => {
      if (streaming) res.write(`${JSON.stringify(line)}\n`)
    }
    try {
      const result = await runImport(deps, params, input, bytesOf(req), req.header('X-Bocado-Person'), (phase, share) =>
        say({ phase, share }),
      )
      if (streaming) res.end(`${JSON.stringify({ result })}\n`)
      else res.json(result)
    } catch (error) {
      if (!streaming) throw error
      res.end(`${JSON.stringify({ problem: toProblem(error).problem })}\n`)
    }
  })

  read(router, deps, weather.imports, ({ params }) => listImports(deps.database, params.siteId))

  router.get('/sites/:siteId/weather-imports/:importId/rejected.csv', async (req: Request, res: Response) => {
    const siteId = parse(id, req.params['siteId'])
    const importId = parse(id, req.params['importId'])
    const rows = await listRejections(deps.database, siteId, importId)
    res.type('text/csv').attachment(`rejected-${importId.slice(0, 8)}.csv`)
    res.send(
      Papa.unparse({ fields: ['line', 'reason', 'content'], data: rows.map(({ line, reason, content }) => [line, reason, content]) }),
    )
  })
}

/** The import's id is the client's: sent again after a lost answer, it finds the import done and stores nothing twice. */
async function runImport(
  deps: Deps,
  { siteId, stationId }: { siteId: string; stationId: string },
  input: { importId: string; fileName: string; mapping: Parameters<typeof readFile>[4] },
  bytes: Uint8Array,
  personHeader: string | undefined,
  onProgress: (phase: 'reading' | 'storing', share: number) => void,
): Promise<ImportResult> {
  const done = await findImport(deps.database, siteId, input.importId)
  if (done) return done
  const readings = await readFile(deps, siteId, stationId, bytes, input.mapping, (share) => onProgress('reading', share))
  onProgress('storing', 0)
  return inTransaction(deps.database, async (tx) => {
    const personId = await writerOf(tx, siteId, personHeader)
    return storeFile({ tx, siteId, personId }, { ...input, stationId, readings }, (share) => onProgress('storing', share))
  })
}
