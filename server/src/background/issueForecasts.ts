import { civilDate } from '@bocado/core'
import { reading, writing, type Serving } from '../http/serving.js'
import { getSite } from '../sites/service.js'
import { keepIssued } from '../watches/issued.js'
import { hashOf } from '../watches/models.js'
import { forecastsOf, type MadeForecast } from '../watches/service.js'

/** What was issued by this process is noted, so that the same is not sent to the database again. */
const noteOf = ({ watch, weather, key }: MadeForecast): string => `issued ${watch.id} ${weather.today} ${hashOf(key)}`

/**
 * Issues the forecasts of a site's season: worked out from one state, then stored. What says the same as before on the same day is
 * kept once, whichever process issues it.
 *
 * @returns how many differ from those that this process issued before
 */
export async function issueForecasts(serving: Serving, siteId: string): Promise<number> {
  const made = await reading(serving, async (deps) => {
    const site = await getSite(deps.db, deps.clock, siteId)
    return forecastsOf(deps, site, site.season.start)
  })
  const fresh = made.filter((one) => !serving.memo.has(noteOf(one)))
  if (fresh.length === 0) return 0
  await writing(serving, async ({ db: tx, clock }) =>
    keepIssued(
      tx,
      siteId,
      await clock.now(tx),
      fresh.map(({ watch, forecast, weather, bloom }) => ({
        watch,
        forecast,
        // A statement is issued for the station's day.
        today: civilDate(weather.today),
        weatherKey: weather.key,
        bloom,
      })),
    ),
  )
  for (const one of fresh) serving.memo.note(noteOf(one))
  return fresh.length
}
