import type { Serving } from '../http/serving.js'
import { issueForecasts } from './issueForecasts.js'
import { tendStations } from './tendStations.js'

/** Checks the readings of a site, makes its forecasts anew as far as what they rest on has changed, and issues them. */
export async function deriveSite(serving: Serving, siteId: string): Promise<void> {
  await tendStations(serving, siteId)
  await issueForecasts(serving, siteId)
}
