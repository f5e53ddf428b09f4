import { civilDate } from '@bocado/core'
import { inputsVersion } from '../database/index.js'
import { HttpProblem } from '../http/problems.js'
import { reading, writing, type Serving } from '../http/serving.js'
import { getSite } from '../sites/service.js'
import { makePicture } from '../watches/band.js'
import { keepForecasts, keptForecasts, loadPicture, noteDerived, packedForecast, packedPicture, siteDerived } from '../watches/derived.js'
import { daysOfStations } from './stationDays.js'
import { makeableForecasts } from '../watches/forecasts.js'
import { keepIssued } from '../watches/issued.js'

/**
 * Makes the forecasts of a site's season as far as what they rest on has changed, keeps them for whoever looks, and issues them: what
 * says the same as before on the same day is issued once. Everything is worked out from one state, then stored.
 *
 * @returns how many were made anew
 */
export async function issueForecasts(serving: Serving, siteId: string): Promise<number> {
  const worked = await reading(serving, async (deps) => {
    const site = await getSite(deps.db, deps.clock, siteId).catch((error: unknown) => {
      if (error instanceof HttpProblem && error.status === 404) return undefined
      throw error
    })
    if (!site) return undefined
    const season = site.season.start
    const now = await deps.clock.now(deps.db)
    const [kept, before] = [await keptForecasts(deps.db, siteId, season), await siteDerived(deps.db, siteId)]
    const fresh = (await makeableForecasts(deps, site, season)).filter(({ watch, keyHash }) => kept.get(watch.id) !== keyHash)
    const picture = await makePicture(deps, site, season)
    const isPictured = before?.season === season && before.keyHash === picture.keyHash
    return {
      site,
      season,
      before,
      now,
      stationDays: (await daysOfStations(deps.db, [siteId], now)).get(siteId) ?? '',
      version: inputsVersion(site.versions),
      fresh: fresh.map((one) => ({ ...one, made: one.make() })),
      picture: { keyHash: picture.keyHash, value: isPictured ? await loadPicture(deps.db, siteId) : picture.make() },
    }
  })
  // A site that was removed meanwhile has nothing to be derived.
  if (!worked) return 0
  const { site, season, before, now, stationDays, version, fresh, picture } = worked
  const forecasts = await Promise.all(
    fresh.map(({ watch, weather, keyHash, made }) =>
      packedForecast(
        {
          watchId: watch.id,
          keyHash,
          inputsVersion: version,
          today: civilDate(weather.today),
          weatherKey: weather.key,
          modelHash: watch.modelHash,
        },
        made,
      ),
    ),
  )
  const packed = await packedPicture(picture.value)
  await writing(serving, async ({ db: tx }) => {
    await keepForecasts(tx, { siteId, season, now }, forecasts)
    await keepIssued(
      tx,
      siteId,
      now,
      // A statement is issued for the station's day.
      fresh.map(({ watch, made, weather, bloom }) => ({
        watch,
        forecast: made.forecast,
        today: civilDate(weather.today),
        weatherKey: weather.key,
        bloom,
      })),
    )
    await noteDerived(tx, siteId, {
      season,
      today: site.today,
      stationDays,
      now,
      inputsVersion: version,
      keyHash: picture.keyHash,
      picture: packed,
    })
    const moved =
      before?.inputsVersion !== version ||
      before.today !== site.today ||
      before.stationDays !== stationDays ||
      before.keyHash !== picture.keyHash
    if (fresh.length > 0 || moved) tx.touch(siteId, 'forecasts')
  })
  return fresh.length
}
