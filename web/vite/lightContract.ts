import { readdirSync, readFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { isDeepStrictEqual } from 'node:util'
import { runnerImport, type Plugin } from 'vite'

const SOURCE = fileURLToPath(new URL('../../contract/src/', import.meta.url))
const LIGHT = '\0contract:light'
const LIGHT_ENDPOINTS = '\0contract:light-endpoints'
/** Asks for it by the endpoints' own addresses, and stays as it is. */
const ASKS_BY_ENDPOINT = `${SOURCE}needs.ts`

type Exports = Record<string, unknown>
interface Described {
  method: string
  path: string
}

const isEndpoint = (value: unknown): value is Described & Exports =>
  typeof value === 'object' && value !== null && 'method' in value && 'path' in value && 'response' in value
const isPlain = (value: unknown): boolean => value !== undefined && isDeepStrictEqual(JSON.parse(JSON.stringify(value) ?? 'null'), value)

/** What the page needs of an endpoint to call it. */
const withoutSchemas = ({ method, path, restsOn, upload }: Described & Exports): Exports => ({ method, path, restsOn, upload })

/** Files of the contract that bring no schemas with them. */
const bare = (): string[] =>
  readdirSync(SOURCE).filter((file) => {
    if (!file.endsWith('.ts') || file.endsWith('.test.ts') || file === 'index.ts' || file === 'openapi.ts') return false
    const imports = [...readFileSync(SOURCE + file, 'utf8').matchAll(/^(?:import|export) (?!type)[^;]*? from '([^']+)'/gm)].map((m) => m[1])
    return imports.length === 0 || (file === 'needs.ts' && imports.every((from) => from === './endpoints.js'))
  })

async function generate(): Promise<{ light: string; endpoints: string }> {
  const { module } = await runnerImport<Exports>(`${SOURCE}index.ts`)
  const files = bare()
  const known = new Set<string>(['endpoints'])
  for (const file of files) for (const name of Object.keys((await runnerImport<Exports>(SOURCE + file)).module)) known.add(name)
  const constants = Object.entries(module).filter(([name, value]) => !known.has(name) && isPlain(value))
  const groups = Object.fromEntries(
    Object.entries(module['endpoints'] as Record<string, Exports>).map(([group, all]) => [
      group,
      Object.fromEntries(Object.entries(all).flatMap(([name, one]) => (isEndpoint(one) ? [[name, withoutSchemas(one)]] : []))),
    ]),
  )
  return {
    light: [
      ...files.map((file) => `export * from ${JSON.stringify(SOURCE + file)}`),
      `export { endpoints } from ${JSON.stringify(LIGHT_ENDPOINTS)}`,
      ...constants.map(([name, value]) => `export const ${name} = ${JSON.stringify(value)}`),
    ].join('\n'),
    endpoints: `export const endpoints = ${JSON.stringify(groups)}`,
  }
}

/**
 * Begins the page with the addresses of the contract and what it names, and without its schemas: making those takes a phone longer than
 * anything else before the first screen. They come by `@bocado/contract/whole`, for the first form that is saved.
 */
export function lightContract(): Plugin {
  let made: ReturnType<typeof generate> | undefined
  return {
    name: 'light-contract',
    enforce: 'pre',
    resolveId(source, importer) {
      if (source === LIGHT_ENDPOINTS) return LIGHT_ENDPOINTS
      if (source === '@bocado/contract') return LIGHT
      if (source === './endpoints.js' && importer === ASKS_BY_ENDPOINT) return LIGHT_ENDPOINTS
      return null
    },
    async load(id) {
      if (id !== LIGHT && id !== LIGHT_ENDPOINTS) return null
      made ??= generate()
      const { light, endpoints } = await made
      return id === LIGHT ? light : endpoints
    },
  }
}
