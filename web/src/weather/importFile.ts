import {
  endpoints,
  type FilePreview,
  type ImportProgress,
  type ImportResult,
  type Problem,
  type WeatherMapping,
  type Written,
} from '@bocado/contract'
import { addressOf, bodyOf, fetchAnswer, RequestProblem, Unreachable } from '../api/client.js'
import { watched } from '../api/hooks.js'

/** As much of a file as the preview reads. */
const PREVIEW_BYTES = 262_144

const HEADERS = { 'Content-Type': 'application/octet-stream' }

/** How the head of a file would be understood, by a mapping, or by a guess from what was said of how it is written. */
export async function previewFile(
  siteId: string,
  stationId: string,
  file: File,
  { mapping, written }: { mapping?: WeatherMapping | undefined; written?: Written | undefined },
): Promise<FilePreview> {
  const address = addressOf(endpoints.weather.preview, {
    params: { siteId, stationId },
    input: {
      ...(mapping ? { mapping: JSON.stringify(mapping) } : {}),
      ...(written ? { written: JSON.stringify(written) } : {}),
    },
  })
  return watched(fetchAnswer(address, { method: 'POST', headers: HEADERS, body: file.slice(0, PREVIEW_BYTES) }).then(bodyOf<FilePreview>))
}

/**
 * Imports a whole file and tells how far it is. The id of the import stays the same over all tries, so that a lost answer
 * never stores the file twice.
 */
export async function importFile(
  place: { siteId: string; stationId: string },
  file: File,
  mapping: WeatherMapping,
  onProgress: (progress: ImportProgress) => void,
): Promise<ImportResult> {
  const importId = crypto.randomUUID()
  const { siteId, stationId } = place
  const address = addressOf(endpoints.weather.import, {
    params: { siteId, stationId },
    input: { importId, fileName: file.name, mapping: JSON.stringify(mapping) },
  })
  for (let attempt = 0; ; attempt++) {
    try {
      return await watched(oneTry(address, file, onProgress))
    } catch (error) {
      if (!(error instanceof Unreachable)) throw error
      await new Promise((resolve) => setTimeout(resolve, Math.min(500 * 2 ** attempt, 4000)))
    }
  }
}

async function oneTry(address: string, file: File, onProgress: (progress: ImportProgress) => void): Promise<ImportResult> {
  const response = await fetchAnswer(address, {
    method: 'POST',
    headers: { ...HEADERS, Accept: 'application/x-ndjson' },
    body: file,
  })
  const reader = response.body?.pipeThrough(new TextDecoderStream()).getReader()
  if (!reader) throw new Unreachable('no body')
  let held = ''
  for (;;) {
    let chunk: ReadableStreamReadResult<string>
    try {
      chunk = await reader.read()
    } catch (error) {
      throw new Unreachable('the answer broke off', { cause: error })
    }
    // A stream that ends without a result is a server that died: the import is either whole or not there, so ask again.
    if (chunk.done) throw new Unreachable('the answer broke off')
    held += chunk.value
    const lines = held.split('\n')
    held = lines.pop() ?? ''
    for (const line of lines) {
      const said = JSON.parse(line) as ImportProgress | { result: ImportResult } | { problem: Problem }
      if ('result' in said) return said.result
      if ('problem' in said) {
        // 409: its first try, whose answer was lost, is still storing it.
        if (said.problem.status === 503 || said.problem.status === 409) throw new Unreachable('not ready')
        throw new RequestProblem(said.problem)
      }
      onProgress(said)
    }
  }
}
