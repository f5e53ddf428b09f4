import { MS_PER_DAY, MS_PER_HOUR } from '@bocado/core'
import { randomUUID } from 'node:crypto'
import { endpoints, type FilePreview, type ImportResult, type Problem, type WeatherMapping } from '@bocado/contract'
import type { Application } from './application.js'
import type { TestSite } from './farm.js'

const HEADERS = { 'Content-Type': 'application/octet-stream' }

const addressOf = (app: Application, { site, stationId }: TestSite, path: string): string =>
  `${app.address}/api/v1${path.replace(':siteId', site.id).replace(':stationId', stationId)}`

/** How the server understands a file. */
export async function preview(
  app: Application,
  place: TestSite,
  file: string | Uint8Array,
  mapping?: WeatherMapping,
): Promise<{ status: number; body: FilePreview & Problem }> {
  const query = mapping ? `?${new URLSearchParams({ mapping: JSON.stringify(mapping) }).toString()}` : ''
  const response = await fetch(`${addressOf(app, place, endpoints.weather.preview.path)}${query}`, {
    method: 'POST',
    headers: { ...HEADERS, Cookie: await app.cookieOf(place.person) },
    body: file as NonNullable<RequestInit['body']>,
  })
  return { status: response.status, body: (await response.json()) as FilePreview & Problem }
}

/** Imports a file by a mapping, as a program would: one answer, no stream. */
export async function importFile(
  app: Application,
  place: TestSite,
  file: string | Uint8Array,
  mapping: WeatherMapping,
  importId: string = randomUUID(),
): Promise<{ status: number; body: ImportResult & Problem }> {
  const query = new URLSearchParams({ importId, fileName: 'bench.csv', mapping: JSON.stringify(mapping) })
  const response = await fetch(`${addressOf(app, place, endpoints.weather.import.path)}?${query.toString()}`, {
    method: 'POST',
    headers: { ...HEADERS, Accept: 'application/json', Cookie: await app.cookieOf(place.person) },
    body: file as NonNullable<RequestInit['body']>,
  })
  return { status: response.status, body: (await response.json()) as ImportResult & Problem }
}

/**
 * Starts an import as the page does, with its progress as lines, and comes back while it is being stored; `last` is its last line, or
 * undefined where the answer breaks off.
 */
export async function importUntilStoring(
  app: Application,
  place: TestSite,
  file: string,
  mapping: WeatherMapping,
  importId: string,
): Promise<{ last: Promise<{ problem?: Problem; result?: ImportResult } | undefined> }> {
  const query = new URLSearchParams({ importId, fileName: 'bench.csv', mapping: JSON.stringify(mapping) })
  const response = await fetch(`${addressOf(app, place, endpoints.weather.import.path)}?${query.toString()}`, {
    method: 'POST',
    headers: { ...HEADERS, Accept: 'application/x-ndjson', Cookie: await app.cookieOf(place.person) },
    body: file,
  })
  const decoder = new TextDecoder()
  const bytes = (response.body as ReadableStream<Uint8Array>).getReader()
  const reader = {
    async read(): Promise<{ done: boolean; value: string }> {
      const { done, value } = await bytes.read()
      return { done, value: decoder.decode(value, { stream: !done }) }
    },
  }
  let text = ''
  const isStoring = (): boolean => /"phase":"storing","share":0\.[1-9]/.test(text)
  while (!isStoring()) {
    const { done, value } = await reader.read()
    if (done) throw new Error(`the import ended before it was stored: ${text.slice(-300)}`)
    text += value
  }
  const last = (async () => {
    try {
      for (let part = await reader.read(); !part.done; part = await reader.read()) text += part.value
    } catch {
      return undefined
    }
    const line = JSON.parse(text.trim().split('\n').at(-1) ?? '{}') as { problem?: Problem; result?: ImportResult }
    return line.problem || line.result ? line : undefined
  })()
  return { last }
}

/** What an hour of `hourlyFile` may differ in. */
export interface HourOfFile {
  rain?: number
  humidity?: number
  warmer?: number
}

/**
 * Hourly readings of an invented station in °C, standard time of the site, from 1 January of `from` to the hour before `until`. Dry,
 * without humidity, unless `hourOf` says otherwise of its hours.
 */
export function hourlyFile(from: number, until: string, hourOf?: (at: Date) => HourOfFile): string {
  const lines = [hourOf ? 'time,temp C,rain mm,RH %' : 'time,temp C,rain mm']
  const end = Date.parse(`${until}T00:00:00Z`)
  for (let at = Date.UTC(from, 0, 1); at < end; at += MS_PER_HOUR) {
    const date = new Date(at)
    const { rain = 0, humidity, warmer = 0 } = hourOf?.(date) ?? {}
    const yearly = 12 - 12 * Math.cos((2 * Math.PI * (at / MS_PER_DAY - 20)) / 365.25) + ((date.getUTCFullYear() * 7) % 5) - 2
    const temperature = yearly + 6 * Math.cos((2 * Math.PI * (date.getUTCHours() - 15)) / 24) + warmer
    const row = [date.toISOString().slice(0, 16).replace('T', ' '), temperature.toFixed(2), rain]
    lines.push((hourOf ? [...row, humidity ?? 55 + (date.getUTCHours() % 12)] : row).join(','))
  }
  return lines.join('\n')
}
