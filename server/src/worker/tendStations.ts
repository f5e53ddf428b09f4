import { setImmediate as breathe } from 'node:timers/promises'
import { reading, writing, type Serving } from '../http/serving.js'
import { differenceOf } from '../weather/fixStore.js'
import { keepCheck } from '../weather/quality.js'
import { findStation, listStations, lockStationRow, raiseVersion } from '../weather/store.js'

/**
 * Checks the stations of a site and keeps what differs, one station at a time: worked out from one state without holding anything, then
 * stored where the station has not changed meanwhile. A station none of whose readings changed is checked anew where it was filled
 * from a neighbour.
 *
 * @returns how many stations changed
 */
export async function tendStations(serving: Serving, siteId: string): Promise<number> {
  const stations = await reading(serving, ({ db }) => listStations(db, siteId))
  let changed = 0
  for (const { id } of stations) {
    await breathe()
    const made = await reading(serving, async ({ db, history }) => {
      const station = await findStation(db, siteId, id)
      if (!station) return undefined
      const check = await history.check(db, station)
      return { station, check, difference: differenceOf(check.before, check.found) }
    })
    if (!made) continue
    const { station, check, difference } = made
    const differs = difference.changed.length > 0 || difference.gone.length > 0
    const isChecked = station.checkedVersion === station.historyVersion
    if (isChecked && !differs) continue
    await writing(serving, async ({ db: tx }) => {
      await lockStationRow(tx, id)
      const now = await findStation(tx, siteId, id)
      if (!now || now.historyVersion !== station.historyVersion || now.checkedVersion !== station.checkedVersion) return
      // Only its neighbours changed: what is believed of it does, and so does what was made from it.
      if (isChecked) await raiseVersion(tx, { siteId, stationId: id }, null)
      await keepCheck(tx, now, check)
      changed++
    })
  }
  return changed
}
