import type { Endpoint } from '@bocado/contract'
import { later } from '../shell/later.js'

/** Longer than this nobody who saves waits for them: on a line that hangs the record is kept, and the server checks it. */
const PATIENCE_MS = 3000

const whole = later(() => import('@bocado/contract/whole'))

/**
 * The schema of what an endpoint takes. The page begins without the schemas of the contract; where they do not come, nothing is checked here
 * and the server says what is wrong.
 */
export async function inputSchema<E extends Endpoint>({ method, path }: E): Promise<E['input'] | undefined> {
  try {
    const contract = await Promise.race([whole(), new Promise<null>((resolve) => setTimeout(() => resolve(null), PATIENCE_MS))])
    if (!contract) return undefined
    const { endpoints } = contract
    for (const group of Object.values(endpoints))
      for (const one of Object.values(group) as Endpoint[]) if (one.method === method && one.path === path) return one.input as E['input']
  } catch {
    // The line is down.
  }
  return undefined
}
