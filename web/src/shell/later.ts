type Fetch = () => Promise<unknown>

const fetches: Fetch[] = []

/** Notes code that is fetched when it is first needed, or beforehand by `fetchTheRest`; returns it. */
export function later<F extends Fetch>(fetched: F): F {
  fetches.push(fetched)
  return fetched
}

/** Fetches what was noted, one after the other, so that each opens at once and also where there is no connection in the field. */
export async function fetchTheRest(): Promise<void> {
  for (const fetched of fetches) await fetched().catch(() => undefined)
}
