import type { Endpoint } from '@bocado/contract'
import { later } from '../shell/later.js'

const whole = later(() => import('@bocado/contract/whole'))

/**
 * The schema of what an endpoint takes. The page begins without the schemas of the contract; where they do not come, nothing is checked here
 * and the server says what is wrong.
 */
export async function inputSchema<E extends Endpoint>({ method, path }: E): Promise<E['input'] | undefined> {
  try {
    const { endpoints } = await whole()
    for (const group of Object.values(endpoints))
      for (const one of Object.values(group) as Endpoint[]) if (one.method === method && one.path === path) return one.input as E['input']
  } catch {
    // The line is down.
  }
  return undefined
}
