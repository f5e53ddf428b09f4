import type { Band, Site, Treatment, WatchForecast } from '@bocado/contract'
import { countDue, currentWindow, dayNumber, LIKELY_FROM, standardDay, urgencyOf, type AlertFacts, type WatchFacts } from '@bocado/core'
import { listBlocks } from '../blocks/store.js'
import { bloomingBySite } from '../bloom/blooming.js'
import { listBloomRecords } from '../bloom/store.js'
import { memberHoursAhead } from '../forecasts/service.js'
import type { Deps } from '../http/route.js'
import { routePlants } from '../library/route.js'
import { getSite } from '../sites/service.js'
import { livingAt } from '../living/service.js'
import { hoursOfWatch } from '../treatments/hours.js'
import { getBand } from '../watches/band.js'
import { listWatches, organismOf } from '../watches/store.js'
import { getStations } from '../weather/stations.js'
import { listStations } from '../weather/store.js'
import { stationPosition } from '../weather/place.js'

/** Nights of which frost is told: the coming one and the next. */
const NIGHTS = 2

/** Everything of a site that may be worth telling today. */
export async function alertFacts(deps: Deps, siteId: string): Promise<{ site: Site; facts: AlertFacts }> {
  const { db, clock } = deps
  const site = await getSite(db, clock, siteId)
  const now = (await clock.now(db)).getTime()
  const today = dayNumber(site.today)
  const band = await getBand(deps, siteId, site.season.start)
  const blocks = await listBlocks(db, siteId)
  const placeOf = (blockId: string): string => blocks.find(({ id }) => id === blockId)?.name ?? ''
  const stored = new Map((await listWatches(db, siteId, site.season.start)).map((watch) => [watch.id, organismOf(watch)]))
  const deeds = band.watches.flatMap((row) => row.treatments)
  return {
    site,
    facts: {
      today,
      now,
      watches: band.watches.map((row): WatchFacts => {
        const serves = stored.get(row.watch.id)?.sampling.serves === 'decision'
        return factsOf(row, placeOf(row.watch.blockId), today, serves)
      }),
      done: deeds.flatMap(({ id, name, placeName, done }) =>
        done ? [{ id, name, place: placeName, entryUntil: done.reEntryUntil === null ? null : Date.parse(done.reEntryUntil) }] : [],
      ),
      planned: await plannedToday(deps, site, band),
      blooms: await missingBlooms(deps, site, band),
      stations: (await getStations(deps, siteId)).map(({ id, name, silent, lastHour }) => ({
        id,
        name,
        silentSince: silent ? lastHour : null,
      })),
      nights: await nightsAhead(deps, site),
      supplies: await suppliesAhead(deps, siteId, deeds),
    },
  }
}

function factsOf(row: WatchForecast, place: string, today: number, serves: boolean): WatchFacts {
  const { watch, organismName, grade, infection, breedsOn, rounds, decision, heat } = row
  const begin = dayNumber(watch.season)
  const on = (day: number | null | undefined): number | null => (day == null ? null : begin + day)
  const urgency = urgencyOf(row)
  const window = infection ? undefined : currentWindow(row)
  const last = rounds.findLast(({ checkAreaId }) => checkAreaId === null)
  const due = serves
    ? countDue({
        today,
        urgency,
        opens: window?.opens.p10 == null ? null : begin + Math.floor(window.opens.p10),
        breedsOn,
        // Months alone are worth a look on the walk, and no alert.
        isItsMonth: false,
        last: last ? { day: dayNumber(last.countedOn), verdict: last.verdict } : null,
        lookAgainOn: decision ? dayNumber(decision.lookAgainOn) : null,
      })
    : null
  const next = infection?.days.find(({ day, probability }) => day >= heat.todayIndex && probability >= LIKELY_FROM)
  const past = infection?.days.findLast(({ day, probability }) => day < heat.todayIndex && probability >= LIKELY_FROM)
  return {
    id: watch.id,
    name: organismName,
    place,
    grade,
    urgency,
    window: window
      ? { generation: window.generation, opens: on(window.opens.p50), best: on(window.bestDay.p50), closes: on(window.closes.p50) }
      : null,
    infection: infection ? { state: infection.state, day: on((infection.state === 'cure' ? past : next)?.day ?? null) } : null,
    count: due && { ...due, since: last?.countedOn ?? watch.season },
  }
}

/** What is planned for today, with the longest run of hours of today in which at least half of the forecast lets it be done. */
async function plannedToday(deps: Deps, site: Site, band: Band): Promise<AlertFacts['planned']> {
  const due = band.watches.flatMap((row) =>
    row.treatments
      .filter(({ status, plannedOn }) => status === 'planned' && plannedOn === site.today)
      .map((treatment) => ({ row, treatment })),
  )
  const found: AlertFacts['planned'][number][] = []
  for (const { row, treatment } of due) {
    const { productId, methodId, id, name, placeName } = treatment
    const means = productId === null ? { methodId: methodId ?? '' } : { productId }
    const { hours, members, over } = await hoursOfWatch(deps, site.id, row.watch.id, means)
    // Without a forecast nobody knows, and nothing is told.
    if (members > 0)
      found.push({
        id,
        name,
        place: placeName,
        run: longestRun(hours.slice(0, 24).map(({ usable }, h) => h >= over && usable * 2 >= members)),
      })
  }
  return found
}

/** The longest run of hours that can be used; null where none can. */
export function longestRun(usable: readonly boolean[]): { from: number; until: number } | null {
  let best: { from: number; until: number } | null = null
  let from: number | null = null
  for (let hour = 0; hour <= usable.length; hour++) {
    if (usable[hour]) from ??= hour
    else if (from !== null) {
      if (!best || hour - from > best.until - best.from) best = { from, until: hour }
      from = null
    }
  }
  return best
}

/** Orders of what is living that are to go out, and what is there and keeps only so long. */
async function suppliesAhead(
  deps: Deps,
  siteId: string,
  deeds: readonly Pick<Treatment, 'id' | 'placeName'>[],
): Promise<AlertFacts['supplies']> {
  const { planned } = await livingAt(deps, siteId)
  return planned.map(({ treatmentId, name, orderBy, usableUntil, state }) => ({
    id: treatmentId,
    name,
    place: deeds.find(({ id }) => id === treatmentId)?.placeName ?? '',
    orderBy: orderBy !== null && (state === 'order' || state === 'late') ? dayNumber(orderBy) : null,
    usableUntil: usableUntil !== null && state === 'there' ? dayNumber(usableUntil) : null,
  }))
}

/** Blooms on the walk that were expected and of which nobody has written anything this season. */
async function missingBlooms({ db }: Deps, site: Site, band: Band): Promise<AlertFacts['blooms']> {
  const records = await listBloomRecords(db, site.id)
  const route = new Set((await routePlants(db, site.id)).map(({ plantId }) => plantId))
  const seen = new Set(records.filter(({ season }) => season === site.season.start).map(({ plantId, event }) => `${plantId} ${event}`))
  return band.blooms.flatMap(({ plant, event, name, eventName, date }) =>
    date.p90 === null || !route.has(plant) || seen.has(`${plant} ${event}`)
      ? []
      : [
          {
            id: `${plant} ${event} ${site.season.start}`,
            name: `${name}, ${eventName}`,
            late: dayNumber(site.season.start) + Math.floor(date.p90),
          },
        ],
  )
}

/** The share of the forecast in which the coming nights freeze, with what flowers then. */
async function nightsAhead(deps: Deps, site: Site): Promise<AlertFacts['nights']> {
  const { db, clock, history } = deps
  const now = await clock.now(db)
  const nights: AlertFacts['nights'][number][] = []
  const blocks = await listBlocks(db, site.id)
  // Most nights do not freeze.
  let found: ReturnType<typeof bloomingBySite> | undefined
  const flowering = (): ReturnType<typeof bloomingBySite> => (found ??= bloomingBySite(deps, site.id))
  for (const station of await listStations(db, site.id)) {
    const days = await history.daysOf(db, station, stationPosition(station, site))
    const first = standardDay(now.getTime(), station.utcOffsetMinutes)
    const members = await memberHoursAhead(deps, station, days, first, NIGHTS + 1)
    if (!members) continue
    for (let night = 1; night <= NIGHTS; night++) {
      // From the evening before to the morning of its day.
      const freezes = members.filter(({ temperature }) => temperature.slice(night * 24 - 6, night * 24 + 9).some((value) => value <= 0))
      const share = freezes.length / members.length
      if (share === 0) continue
      const day = first + night
      const ofStation = new Set(blocks.filter(({ follows }) => follows?.stationId === station.id).map(({ id }) => id))
      const flowers = new Set(
        (await flowering())
          .filter(({ blockId }) => ofStation.has(blockId))
          .flatMap((one) => one.flowers)
          .filter(({ from, until }) => from !== null && dayNumber(from) <= day && (until === null || dayNumber(until) >= day))
          .map(({ name }) => name),
      )
      nights.push({ stationId: station.id, station: station.name, day, share, flowers: [...flowers].join(', ') })
    }
  }
  return nights
}
