import { endpoints, type Endpoint } from '@bocado/contract'
import { expect, test } from 'vitest'
import { inputSchema } from './wholeContract.js'

/** An endpoint as the page's bundle has it: its address, and no schemas. */
const light = ({ method, path }: Endpoint): Endpoint => ({ method, path }) as Endpoint

test('each endpoint has its schema by its address', async () => {
  for (const group of Object.values(endpoints))
    for (const one of Object.values(group) as Endpoint[]) expect(await inputSchema(light(one)), `${one.method} ${one.path}`).toBe(one.input)
})

test('what no contract knows has none: the server says what is wrong', async () => {
  expect(await inputSchema({ method: 'post', path: '/elsewhere' } as Endpoint)).toBeUndefined()
})
